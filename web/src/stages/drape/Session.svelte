<!-- The draping session, step by step, to be followed with the hands busy: large, one thing at a time, by key. -->
<script lang="ts">
	import type { Drapes, OnForm } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { typedInto } from '../../lib/parts/keys';
	import { spoken } from '../../lib/units.svelte';

	interface Props {
		drapes: Drapes;
		form: OnForm;
		onkeep: (form: OnForm, words: string) => void;
	}
	let { drapes, form, onkeep }: Props = $props();

	const desk = getDesk();
	const done = $derived(new Set(form.done));
	const next = $derived(drapes.steps.find((step) => !done.has(step.key)));
	const parts = $derived([...new Set(drapes.steps.map((step) => step.part))]);

	function tick(key: string): void {
		onkeep(
			{ ...form, done: done.has(key) ? form.done.filter((one) => one !== key) : [...form.done, key] },
			'tick it off',
		);
	}

	/** Space ticks off what comes next; Backspace takes the last one back. */
	function key(event: KeyboardEvent): void {
		const target = event.target as HTMLElement;
		if (typedInto(target) || target.closest('button, a, select, [type=checkbox]') || desk.deeds.busy) return;
		if (event.key === ' ' && next) {
			event.preventDefault();
			tick(next.key);
		} else if (event.key === 'Backspace') {
			const last = drapes.steps.filter((step) => done.has(step.key)).at(-1);
			if (last) tick(last.key);
		}
	}
</script>

<svelte:window onkeydown={key} />

<div class="session">
	{#each parts as part (part)}
		<section>
			<h3>{part}</h3>
			<ol>
				{#each drapes.steps.filter((step) => step.part === part) as step (step.key)}
					<li class:next={step === next} class:done={done.has(step.key)}>
						<label>
							<input
								type="checkbox"
								checked={done.has(step.key)}
								disabled={desk.deeds.busy}
								onchange={() => tick(step.key)}
							/>
							<span>
								{spoken(step.does)}
								{#if step.watch}<em>{spoken(step.watch)}</em>{/if}
							</span>
						</label>
					</li>
				{/each}
			</ol>
		</section>
	{/each}
	<p class="soft">Space ticks off what comes next, Backspace takes it back.</p>
</div>

<style>
	.session {
		height: 100%;
		overflow: auto;
		padding: 1rem 1.6rem;
		background: var(--paper);
		font-size: 1.15rem;
	}
	section {
		max-width: 46rem;
	}
	h3 {
		margin: 0.8rem 0 0.2rem;
		color: var(--ink-soft);
	}
	label {
		display: flex;
		gap: 0.8rem;
		padding: 0.3rem 0.6rem;
		cursor: pointer;
	}
	input {
		flex: none;
		width: 1.4rem;
		height: 1.4rem;
		margin-top: 0.15rem;
	}
	em {
		display: block;
		font-style: normal;
		color: var(--ink-soft);
		font-size: 1rem;
	}
	.next {
		background: var(--chalk-soft);
		border-left: 4px solid var(--chalk);
	}
	.done {
		color: var(--ink-soft);
	}
</style>
