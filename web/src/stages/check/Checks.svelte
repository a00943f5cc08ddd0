<!-- The checks: what does not hold first, each with what would fix it; what is accepted, and why; then all that holds. -->
<script lang="ts">
	import type { Check, Half } from '../../lib/api/client';
	import { ofRight } from '../../lib/desk/names.svelte';
	import { oddOf } from '../../lib/desk/checks';
	import { getDesk } from '../../lib/desk/context';
	import { operations } from '../../lib/desk/operations.svelte';
	import { newStep, withStep } from '../../lib/desk/recipe';
	import { plain, spoken } from '../../lib/units.svelte';

	let { ondraws }: { ondraws: (names: string[]) => void } = $props();

	const desk = getDesk();
	void operations.load();
	const checks = $derived(desk.trial.preview?.checks ?? []);
	const odd = $derived(oddOf(checks));
	const accepted = $derived(checks.filter((c) => c.verdict === 'accepted'));
	const fine = $derived(checks.filter((c) => c.verdict === 'passes'));
	const MARKS: Record<string, string> = {
		fails: '✕',
		warns: '!',
		passes: '✓',
		accepted: '≈',
		not_applicable: '–',
	};
	/** The finding that is being accepted, by its place in the list, and the reason as typed. */
	let accepting = $state<number | null>(null);
	let reason = $state('');

	/** The names of what a finding is about, on its half. */
	function concerned(check: Check): string[] {
		return check.half === 'right' ? check.where.map(ofRight) : check.where;
	}

	function fix(kind: string, params: Record<string, unknown>, words: string, check: Check): void {
		const operation = operations.of(kind);
		const half = operation?.sided ? (check.half as Half) : 'both';
		const step = newStep(kind, params, { version: operation?.version, half, why: plain(check.words) });
		const { check: key, where, aspect, half: on } = check;
		const about = { check: key, where, aspect, half: on as Half };
		void desk.deeds.keep((recipe) => withStep(recipe, step), words, about);
	}

	function accept(check: Check): void {
		const params = {
			check: check.check,
			where: check.where,
			aspect: check.aspect,
			on: check.half,
			worse: check.worse,
			// A hair beyond, so that the same finding stays accepted.
			up_to:
				check.worse === 'less'
					? Math.floor(check.amount * 100 - 1) / 100
					: Math.ceil(Math.abs(check.amount) * 100 + 1) / 100,
			reason: reason.trim(),
		};
		const step = newStep('accept', params, { version: operations.of('accept')?.version });
		void desk.deeds.keep((recipe) => withStep(recipe, step), `Accepted: ${plain(check.words)}`);
		accepting = null;
		reason = '';
	}
</script>

{#if odd.length === 0 && checks.length}
	<p class="all">Everything agrees: {fine.length} things were checked.</p>
{/if}
<ul>
	{#each [...odd, ...accepted, ...fine] as check, i (i)}
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<li
			class={check.verdict}
			tabindex="0"
			title={check.claim}
			onpointerenter={() => ondraws(concerned(check))}
			onpointerleave={() => ondraws([])}
			onfocus={() => ondraws(concerned(check))}
			onblur={() => ondraws([])}
		>
			<span class="sign" aria-label={check.verdict}>{MARKS[check.verdict]}</span>
			<div class="said">
				{spoken(check.words)}
				{#if check.verdict === 'accepted'}<em>Accepted: {check.reason}</em>{/if}
				{#if check.verdict === 'fails' || check.verdict === 'warns'}
					<em>{spoken(check.fix)}</em>
					<p class="fixes">
						{#each check.fixes as way, n (n)}
							<button
								class="button small"
								disabled={desk.deeds.busy}
								onclick={() => fix(way.kind, way.params, way.words, check)}>{spoken(way.words)}</button
							>
						{/each}
						<button class="button small quiet" onclick={() => (accepting = accepting === i ? null : i)}
							>Accept…</button
						>
					</p>
					{#if accepting === i}
						<form
							class="accept"
							onsubmit={(e) => {
								e.preventDefault();
								if (reason.trim()) accept(check);
							}}
						>
							<label for="reason">Why it is meant</label>
							<input id="reason" class="field" bind:value={reason} required maxlength="300" />
							<button class="button small main" disabled={!reason.trim()}>Accept</button>
						</form>
					{/if}
				{/if}
			</div>
		</li>
	{/each}
</ul>

<style>
	.all {
		padding: 0.6rem 0.3rem;
		color: var(--moss);
		font-weight: 600;
	}
	li {
		display: flex;
		gap: 0.6rem;
		padding: 0.3rem;
		border-bottom: 1px solid var(--rule);
	}
	.said {
		flex: 1;
		min-width: 0;
	}
	.sign {
		width: 1.2rem;
		text-align: center;
		font-weight: 700;
	}
	.passes .sign {
		color: var(--moss);
	}
	.accepted .sign {
		color: var(--chalk);
	}
	.warns .sign {
		color: var(--amber);
	}
	.fails .sign {
		color: var(--wax);
	}
	em {
		display: block;
		font-style: normal;
		color: var(--ink-soft);
	}
	.fixes {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem;
		margin: 0.3rem 0 0.1rem;
	}
	.quiet {
		color: var(--ink-soft);
	}
	.accept {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.4rem;
	}
	.accept label {
		width: 100%;
		font-size: 0.92rem;
	}
	.accept input {
		flex: 1;
	}
</style>
