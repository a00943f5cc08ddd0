<!-- Style: point at a thing on the table, choose what to do with it, see it at once; the recipe beside it. -->
<script lang="ts">
	import type { Half, Offer, Step } from '../../lib/api/client';
	import { answered, api, asProblem } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { operations } from '../../lib/desk/operations.svelte';
	import { newStep, withStep } from '../../lib/desk/recipe';
	import TableAndPanel from '../../lib/parts/TableAndPanel.svelte';
	import { subjects, type Subject } from '../../lib/table/picking';
	import Table from '../../lib/table/Table.svelte';
	import { lineName } from '../../lib/words';
	import Offers from './Offers.svelte';
	import OtherPattern from './OtherPattern.svelte';
	import RecipeList from './RecipeList.svelte';
	import StepForm from './StepForm.svelte';

	const desk = getDesk();
	desk.begin({});
	void operations.load();

	let picked = $state.raw<Subject | null>(null);
	/** The step that is being worked, and whether it is new. */
	let trial = $state.raw<{ step: Step; isNew: boolean } | null>(null);
	let waiting = $state<string | null>(null);

	const operation = $derived(trial ? operations.of(trial.step.kind) : undefined);
	const stage = $derived(desk.preview?.stages.find((s) => s.step.uid === trial?.step.uid));
	const all = $derived(subjects(desk.pieces));
	const label = $derived(
		picked
			? picked.kind === 'garment'
				? 'The whole garment'
				: picked.kind === 'piece'
					? (desk.pieces.find((p) => p.name === picked?.name)?.title ?? picked.name)
					: `${lineName(picked.name)}${picked.kind === 'level' ? ' level' : ''}`
			: '',
	);
	const lit = $derived(new Set(picked ? [picked.kind === 'level' ? '' : picked.name] : []));

	function choose(offer: Offer): void {
		trial = {
			isNew: true,
			step: newStep(offer.kind, offer.params, { version: offer.version, half: offer.half as Half }),
		};
		attempt(trial.step);
	}

	function attempt(step: Step): void {
		if (!desk.job || !trial) return;
		trial = { ...trial, step };
		desk.try(withStep(desk.job.recipe, step));
	}

	function open(uid: string): void {
		const step = desk.job?.recipe.steps?.find((s) => s.uid === uid);
		if (!step) return;
		picked = null;
		trial = { step, isNew: false };
	}

	async function keep(): Promise<void> {
		if (!trial) return;
		const { step, isNew } = trial;
		const words = stage?.words ?? operation?.title ?? step.kind;
		if (await desk.keep((recipe) => withStep(recipe, step), isNew ? words : `Changed: ${words}`)) done();
	}

	function leave(): void {
		done();
		desk.leave();
	}

	function done(): void {
		trial = null;
		picked = null;
		waiting = null;
	}

	/** A thing was pointed at: it fills the field that waits, or asks what can be done with it. */
	function pick(subject: Subject): void {
		if (!trial) picked = subject;
		else if (waiting && subject.kind === 'line') void setLine(waiting, subject);
	}

	async function setLine(name: string, subject: Subject): Promise<void> {
		if (!trial || !desk.job) return;
		const field = operation?.fields.find((f) => f.name === name);
		try {
			const { fraction, ...line } = await answered(
				api.POST('/api/lines', {
					body: { sheet: desk.job.sheet.id, recipe: desk.job.recipe, job: desk.job.id, ...subject },
				}),
			);
			const entered = field?.kind === 'place' ? { ...line, fraction } : line;
			attempt({ ...trial.step, params: { ...trial.step.params, [name]: entered } });
			waiting = null;
		} catch (error) {
			desk.problem = asProblem(error);
		}
	}

	function key(event: KeyboardEvent): void {
		if (event.key === 'Escape' && (trial || picked)) {
			if (trial) leave();
			picked = null;
		}
	}
</script>

<svelte:window onkeydown={key} />

{#snippet form()}
	{#if trial && operation}
		<StepForm
			{operation}
			step={trial.step}
			{stage}
			isNew={trial.isNew}
			{waiting}
			onchange={attempt}
			onwait={(field) => (waiting = field)}
			online={setLine}
			onkeep={keep}
			onleave={leave}
		/>
	{/if}
{/snippet}

<TableAndPanel problem={desk.draftProblem}>
	{#snippet table()}
		<Table
			pieces={desk.pieces}
			under={desk.beside ? (desk.preview?.beside?.pieces ?? []) : []}
			{lit}
			onpick={pick}
			label={`The pattern: ${desk.pieces.map((piece) => piece.title.toLowerCase()).join(', ')}`}
		/>
	{/snippet}
	{#snippet panel()}
		{#if trial?.isNew}
			{@render form()}
		{:else if picked}
			<Offers subject={picked} {label} onchoose={choose} onleave={() => (picked = null)} />
		{:else}
			<p class="choose">
				<label for="thing">Point at the table, or choose</label>
				<select
					id="thing"
					class="field"
					value=""
					onchange={(e) => {
						const found = all[Number(e.currentTarget.value)];
						if (found) picked = found.subject;
						e.currentTarget.value = '';
					}}
				>
					<option value="">a dart, a line, a level, a piece…</option>
					{#each all as { label: name }, i (i)}<option value={i}>{name}</option>{/each}
				</select>
			</p>
		{/if}
		<RecipeList opened={trial && !trial.isNew ? trial.step.uid : null} {form} onopen={open} />
		{#if !trial}<OtherPattern ontake={(step) => ((trial = { step, isNew: true }), attempt(step))} />{/if}
	{/snippet}
</TableAndPanel>

<style>
	.choose {
		margin: 0 0 0.6rem;
	}
	.choose label {
		display: block;
		color: var(--ink-soft);
	}
	.choose select {
		width: 100%;
	}
</style>
