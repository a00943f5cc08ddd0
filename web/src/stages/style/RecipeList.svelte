<!-- The recipe in the maker's words: each step opened, switched off, moved or taken out; why one cannot act. -->
<script lang="ts">
	import { ArrowDown, ArrowUp, Trash2 } from '@lucide/svelte';
	import { Switch } from '@skeletonlabs/skeleton-svelte';
	import type { Snippet } from 'svelte';
	import { answered, api, asProblem, type Stage, type Without } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { withoutStep, withStep, withStepMoved } from '../../lib/desk/recipe';
	import { shown, spoken } from '../../lib/units.svelte';

	interface Props {
		/** The step that is open, with the form to edit it in its place. */
		opened: string | null;
		form: Snippet;
		onopen: (uid: string) => void;
	}
	let { opened, form, onopen }: Props = $props();

	const desk = getDesk();
	const stages = $derived(desk.preview?.stages ?? []);
	const groups = $derived(
		[
			{ title: 'Changes to the block', of: stages.filter((s) => s.phase === 'shape') },
			{ title: 'Follows the final edges', of: stages.filter((s) => s.phase === 'follow') },
			{ title: 'Said and accepted', of: stages.filter((s) => s.phase === 'accept') },
		].filter((group) => group.of.length),
	);
	/** A step that may be taken out, with what that would break. */
	let leaving = $state.raw<{ uid: string; effect: Without } | null>(null);

	function number(uid: string): number {
		return stages.findIndex((s) => s.step.uid === uid) + 1;
	}

	async function turn(stage: Stage, on: boolean): Promise<void> {
		await desk.keep(
			(recipe) => {
				const step = recipe.steps?.find((s) => s.uid === stage.step.uid);
				return step ? withStep(recipe, { ...step, on }) : recipe;
			},
			`${on ? 'On' : 'Off'}: ${stage.words}`,
		);
	}

	async function takeOut(stage: Stage): Promise<void> {
		const { job } = desk;
		if (!job) return;
		try {
			const effect = await answered(
				api.POST('/api/without', {
					body: { sheet: job.sheet.id, recipe: job.recipe, uid: stage.step.uid },
				}),
			);
			if (!effect.broken.length && !effect.checks.length) await gone(stage);
			else leaving = { uid: stage.step.uid, effect };
		} catch (error) {
			desk.problem = asProblem(error);
		}
	}

	async function gone(stage: Stage): Promise<void> {
		leaving = null;
		await desk.keep((recipe) => withoutStep(recipe, stage.step.uid), `Taken out: ${stage.words}`);
	}

	async function move(stage: Stage, by: -1 | 1): Promise<void> {
		await desk.keep(
			(recipe) => withStepMoved(recipe, stage.step.uid, by),
			`${by < 0 ? 'Earlier' : 'Later'}: ${stage.words}`,
		);
	}
</script>

{#if !stages.length}
	<p class="soft empty">
		Nothing is changed yet: this is the block as drafted. Point at a dart, a seam or an edge on the table and
		choose what to do with it.
	</p>
{/if}
{#each groups as group (group.title)}
	<h2>{group.title}</h2>
	<ol>
		{#each group.of as stage, i (stage.step.uid)}
			<li class:off={!stage.step.on} class:opened={opened === stage.step.uid} data-step={stage.step.uid}>
				{#if opened === stage.step.uid}{@render form()}{/if}
				<div class="line" class:under={opened === stage.step.uid}>
					<button class="words" onclick={() => onopen(stage.step.uid)} title="Open this step">
						<span class="number figures">{number(stage.step.uid)}</span>
						<span>{spoken(stage.words)}</span>
					</button>
					<Switch
						checked={stage.step.on}
						onCheckedChange={(e) => turn(stage, e.checked)}
						aria-label={`${stage.words}: acts`}
					>
						<Switch.Control><Switch.Thumb /></Switch.Control>
						<Switch.HiddenInput aria-label={`${stage.words}: acts`} />
					</Switch>
				</div>
				{#if stage.step.why}<p class="soft">“{stage.step.why}”</p>{/if}
				{#if stage.failure}
					<p class="note">Skipped: {spoken(stage.failure)} {spoken(stage.mend)}</p>
				{:else if stage.step.on && stage.sums.length}
					<p class="soft figures">
						{stage.sums
							.filter(([, amount]) => amount !== 0)
							.slice(0, 4)
							.map(
								([what, amount, unit]) =>
									`${what} ${unit === 'cm' ? shown(amount) : Math.round(amount * 100) / 100 + unit}`,
							)
							.join(' · ')}
					</p>
				{/if}
				<p class="tools">
					{#if stage.needs.length}<span class="soft"
							>acts on {stage.needs.map((uid) => `step ${number(uid)}`).join(', ')}</span
						>{/if}
					<button
						class="icon"
						disabled={i === 0 || desk.busy}
						onclick={() => move(stage, -1)}
						aria-label={`Earlier: ${stage.words}`}
						title="Earlier"><ArrowUp size={15} /></button
					>
					<button
						class="icon"
						disabled={i === group.of.length - 1 || desk.busy}
						onclick={() => move(stage, 1)}
						aria-label={`Later: ${stage.words}`}
						title="Later"><ArrowDown size={15} /></button
					>
					<button
						class="icon"
						disabled={desk.busy}
						onclick={() => takeOut(stage)}
						aria-label={`Take out: ${stage.words}`}
						title="Take out"><Trash2 size={15} /></button
					>
				</p>
				{#if leaving?.uid === stage.step.uid}
					<div class="note" role="alertdialog" aria-label="What depends on it">
						{#if leaving.effect.broken.length}
							<p>Without it these steps could not act any more:</p>
							<ul>
								{#each leaving.effect.broken as broken (broken.uid)}
									<li>{number(broken.uid)}. {spoken(broken.words)}: {spoken(broken.why)}</li>
								{/each}
							</ul>
						{/if}
						{#if leaving.effect.checks.length}
							<p>And this would no longer agree:</p>
							<ul>
								{#each leaving.effect.checks as words, n (n)}<li>{spoken(words)}</li>{/each}
							</ul>
						{/if}
						<p class="deeds">
							<button class="button small" onclick={() => gone(stage)}>Take it out all the same</button>
							<button class="button small main" onclick={() => (leaving = null)}>Keep it</button>
						</p>
					</div>
				{/if}
			</li>
		{/each}
	</ol>
{/each}

<style>
	h2 {
		font-size: 1.05rem;
		margin: 0.6rem 0.3rem 0.2rem;
	}
	ol,
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	ol > li {
		padding: 0.4rem 0.3rem;
		border-bottom: 1px solid var(--rule);
	}
	.opened {
		background: var(--chalk-soft);
	}
	.off .words span:last-child {
		text-decoration: line-through;
		color: var(--ink-soft);
	}
	.line {
		display: flex;
		justify-content: space-between;
		gap: 0.6rem;
	}
	.under {
		display: none;
	}
	.words {
		display: flex;
		gap: 0.5rem;
		text-align: left;
		cursor: pointer;
	}
	.number {
		color: var(--ink-soft);
		min-width: 1.1rem;
	}
	p {
		margin: 0.1rem 0 0;
	}
	.soft {
		color: var(--ink-soft);
		font-size: 0.92rem;
	}
	.empty {
		padding: 0.6rem 0.3rem;
		font-size: 1rem;
	}
	.tools {
		display: flex;
		justify-content: flex-end;
		align-items: center;
		gap: 0.2rem;
	}
	.tools .soft {
		margin-right: auto;
	}
	.icon {
		padding: 0.25rem;
		color: var(--ink-soft);
		cursor: pointer;
	}
	.icon:disabled {
		opacity: 0.35;
		cursor: default;
	}
	.deeds {
		display: flex;
		gap: 0.5rem;
		margin-top: 0.4rem;
	}
</style>
