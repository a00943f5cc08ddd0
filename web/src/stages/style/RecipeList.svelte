<!-- The recipe in the maker's words: each step opened, switched off, moved or taken out; why one cannot act. -->
<script lang="ts">
	import { ArrowDown, ArrowUp, Trash2 } from '@lucide/svelte';
	import { Switch } from '@skeletonlabs/skeleton-svelte';
	import type { Snippet } from 'svelte';
	import { api, type Section, type Stage, type Without } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { withoutStep, withSection, withStep, withStepBeside } from '../../lib/desk/recipe';
	import { plain, shown, spoken } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';

	interface Props {
		/** The step that is open, with the form to edit it in its place. */
		opened: string | null;
		form: Snippet;
		onopen: (uid: string) => void;
	}
	let { opened, form, onopen }: Props = $props();

	const desk = getDesk();
	const stages = $derived(desk.trial.preview?.stages ?? []);
	const SECTIONS: { key: Section; title: string; says: string }[] = [
		{
			key: 'fit',
			title: 'Fit',
			says: 'what a fitting told of this body: worked on the block, under the style',
		},
		{ key: 'style', title: 'Style', says: 'what makes the garment' },
		{ key: 'follow', title: 'Follow', says: 'worked from the final edges' },
		{ key: 'finish', title: 'Finish', says: 'how it is cut and sewn' },
		{ key: 'accept', title: 'Accepted', says: 'meant as it is' },
	];
	const groups = $derived(
		SECTIONS.map((section) => ({ ...section, of: stages.filter((s) => s.section === section.key) })).filter(
			(group) => group.of.length,
		),
	);
	/** A change of the list that is looked at before it is made: a step taken out, or put in another section. */
	let weighed = $state.raw<{ uid: string; to: Section | null; effect: Without } | null>(null);

	/** The number of a step in the list; those that follow by themselves have none. */
	function number(uid: string): number {
		return stages.filter((s) => !s.follows.length).findIndex((s) => s.step.uid === uid) + 1;
	}

	/** The other of the two sections in which a step may stand, if it has one. */
	function otherSection(stage: Stage): Section | null {
		const other = stage.may_stand.find((section) => section !== stage.section);
		return (other as Section | undefined) ?? null;
	}

	/** The lines that would move most, each once: a line that was cut lies on several pieces. */
	function farthest(effect: Without): Without['moves'] {
		const names = effect.moves.map((line) => lineName(line.lineage));
		return effect.moves.filter((_, i) => names.indexOf(names[i]!) === i).slice(0, 4);
	}

	function titleOf(section: Section): string {
		return SECTIONS.find((one) => one.key === section)?.title ?? section;
	}

	async function turn(stage: Stage, on: boolean): Promise<void> {
		await desk.deeds.keep(
			(recipe) => {
				const step = recipe.steps?.find((s) => s.uid === stage.step.uid);
				return step ? withStep(recipe, { ...step, on }) : recipe;
			},
			`${on ? 'On' : 'Off'}: ${plain(stage.words)}`,
		);
	}

	/** Look at what taking a step out, or putting it in another section, would do. */
	async function weigh(stage: Stage, to: Section | null): Promise<void> {
		const { job } = desk;
		if (!job) return;
		const body = { sheet: job.sheet.id, recipe: job.recipe, uid: stage.step.uid, job: job.id };
		const effect = await desk.ask<Without>(
			to ? api.POST('/api/moved', { body: { ...body, section: to } }) : api.POST('/api/without', { body }),
		);
		if (!effect) return;
		const nothingBreaks = !effect.broken.length && !effect.checks.length;
		if (!to && nothingBreaks) await takeOut(stage);
		else weighed = { uid: stage.step.uid, to, effect };
	}

	async function takeOut(stage: Stage): Promise<void> {
		weighed = null;
		await desk.deeds.keep(
			(recipe) => withoutStep(recipe, stage.step.uid),
			`Taken out: ${plain(stage.words)}`,
		);
	}

	async function putIn(stage: Stage, to: Section): Promise<void> {
		weighed = null;
		await desk.deeds.keep(
			(recipe) => withSection(recipe, stage.step.uid, to),
			`To ${titleOf(to)}: ${plain(stage.words)}`,
		);
	}

	async function move(stage: Stage, beside: Stage, where: 'before' | 'after'): Promise<void> {
		await desk.deeds.keep(
			(recipe) => withStepBeside(recipe, stage.step.uid, beside.step.uid, where),
			`${where === 'before' ? 'Earlier' : 'Later'}: ${plain(stage.words)}`,
		);
	}
</script>

{#if desk.trial.preview && !stages.length}
	<p class="soft empty">
		Nothing is changed yet: this is the block as drafted. Point at a dart, a seam or an edge on the table and
		choose what to do with it.
	</p>
{/if}
{#each groups as group (group.key)}
	<h2>{group.title} <span class="soft">{group.says}</span></h2>
	<ol data-section={group.key}>
		{#each group.of as stage, i (stage.step.uid)}
			{#if stage.follows.length}
				<li class="follows">
					<span>{spoken(stage.words)}</span>
					<p class="soft">
						follows by itself, because of {stage.follows.map((uid) => `step ${number(uid)}`).join(', ')}
					</p>
					{#if stage.failure}
						<p class="note">It cannot: {spoken(stage.failure)} {spoken(stage.fix)}</p>
					{/if}
				</li>
			{:else}
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
							aria-label={`${spoken(stage.words)}: acts`}
						>
							<Switch.Control><Switch.Thumb /></Switch.Control>
							<Switch.HiddenInput aria-label={`${spoken(stage.words)}: acts`} />
						</Switch>
					</div>
					{#if stage.step.why}<p class="soft">“{stage.step.why}”</p>{/if}
					{#if stage.failure}
						<p class="note">Skipped: {spoken(stage.failure)} {spoken(stage.fix)}</p>
					{:else if stage.idle}
						<p class="note">{stage.idle}</p>
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
						{#if otherSection(stage)}
							{@const to = otherSection(stage)!}
							<button
								class="button small quiet"
								disabled={desk.deeds.busy}
								onclick={() => weigh(stage, to)}
								title="Look at what that does first">To {titleOf(to)}…</button
							>
						{/if}
						<button
							class="icon"
							disabled={i === 0 || desk.deeds.busy}
							onclick={() => move(stage, group.of[i - 1]!, 'before')}
							aria-label={`Earlier: ${spoken(stage.words)}`}
							title="Earlier"><ArrowUp size={15} /></button
						>
						<button
							class="icon"
							disabled={i === group.of.length - 1 || desk.deeds.busy}
							onclick={() => move(stage, group.of[i + 1]!, 'after')}
							aria-label={`Later: ${spoken(stage.words)}`}
							title="Later"><ArrowDown size={15} /></button
						>
						<button
							class="icon"
							disabled={desk.deeds.busy}
							onclick={() => weigh(stage, null)}
							aria-label={`Take out: ${spoken(stage.words)}`}
							title="Take out"><Trash2 size={15} /></button
						>
					</p>
					{#if weighed?.uid === stage.step.uid}
						{@const { to, effect } = weighed}
						<div class="note" role="alertdialog" aria-label="What that does">
							{#if to === 'fit'}
								<p>
									Worked on the block, before the style, it would act on lines that no style step has changed.
								</p>
							{:else if to}
								<p>Worked after the fitting, in its place among the style steps.</p>
							{/if}
							{#if effect.broken.length}
								<p>{to ? 'There' : 'Without it'} these steps could not act any more:</p>
								<ul>
									{#each effect.broken as broken (broken.uid)}
										<li>{number(broken.uid)}. {spoken(broken.words)}: {spoken(broken.why)}</li>
									{/each}
								</ul>
							{/if}
							{#if effect.checks.length}
								<p>And this would no longer agree:</p>
								<ul>
									{#each effect.checks as words, n (n)}<li>{spoken(words)}</li>{/each}
								</ul>
							{/if}
							{#if to}
								{#if effect.moves.length}
									<p>Lines that would move:</p>
									<ul class="figures">
										{#each farthest(effect) as line (line.piece + line.lineage)}
											<li>{lineName(line.lineage)}, by up to {shown(line.distance)}</li>
										{/each}
									</ul>
								{:else}
									<p>No line would move.</p>
								{/if}
							{/if}
							<p class="deeds">
								{#if to}
									<button class="button small main" onclick={() => putIn(stage, to)}
										>Put it in {titleOf(to)}</button
									>
									<button class="button small" onclick={() => (weighed = null)}
										>Leave it in {group.title}</button
									>
								{:else}
									<button class="button small" onclick={() => takeOut(stage)}>Remove it anyway</button>
									<button class="button small main" onclick={() => (weighed = null)}>Keep it</button>
								{/if}
							</p>
						</div>
					{/if}
				</li>
			{/if}
		{/each}
	</ol>
{/each}

<style>
	h2 {
		font-size: 1.05rem;
		margin: 0.6rem 0.3rem 0.2rem;
	}
	ol,
	ol > li {
		padding: 0.4rem 0.3rem;
		border-bottom: 1px solid var(--rule);
	}
	h2 .soft {
		font-weight: 400;
	}
	.follows {
		padding-left: 2rem;
		color: var(--ink-soft);
	}
	.quiet {
		color: var(--ink-soft);
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
