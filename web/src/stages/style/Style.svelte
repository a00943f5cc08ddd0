<!-- Style: point at a thing on the table, choose what to do with it, see it at once; the recipe beside it. -->
<script lang="ts">
	import { tick, untrack } from 'svelte';
	import { api, type Half, type Line, type Offer, type Piece, type Step } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { operations } from '../../lib/desk/operations.svelte';
	import { newStep, withStep } from '../../lib/desk/recipe';
	import { openedFirst } from '../../lib/parts/opened';
	import { allRead } from '../../lib/parts/reads';
	import TableAndPanel from '../../lib/parts/TableAndPanel.svelte';
	import { subjects, type Subject } from '../../lib/table/picking';
	import Table from '../../lib/table/Table.svelte';
	import { lineName } from '../../lib/words';
	import Offers from './Offers.svelte';
	import OtherPattern from './OtherPattern.svelte';
	import { linesOf, placeIn, Places } from './places.svelte';
	import RecipeList from './RecipeList.svelte';
	import StepForm from './StepForm.svelte';

	const desk = getDesk();
	desk.begin();
	void operations.load();

	let picked = $state.raw<Subject | null>(null);
	/** The step that is being worked, and whether it is new. */
	let editing = $state.raw<{ step: Step; isNew: boolean } | null>(null);
	let waiting = $state<string | null>(null);
	/** The pieces as they are kept, while a step is tried: the old lines, in pencil. */
	let before = $state.raw<Piece[]>([]);
	const old = $derived(
		editing
			? before.filter((piece) => {
					const now = desk.trial.pieces.find((other) => other.name === piece.name);
					return !now || drawnAs(now) !== drawnAs(piece);
				})
			: [],
	);

	/** A piece's outline as text: its key changes with all that is told of it, such as how many pieces there are. */
	function drawnAs(piece: Piece): string {
		return JSON.stringify(piece.edges.map((edge) => edge.curve));
	}
	/** Another job's pattern, laid under this one. */
	let other = $state.raw<Piece[] | null>(null);

	const operation = $derived(editing ? operations.of(editing.step.kind) : undefined);
	const stage = $derived(desk.trial.preview?.stages.find((s) => s.step.uid === editing?.step.uid));
	const all = $derived(subjects(desk.trial.pieces));
	const places = new Places();
	/** On which lines they lie: empty where the step has none. */
	const lying = $derived(editing && operation ? linesOf(operation, editing.step) : '');
	$effect(() => {
		if (lying) untrack(() => editing && places.look(desk, editing.step));
		else places.clear();
	});
	const label = $derived(
		picked
			? picked.kind === 'garment'
				? 'The whole garment'
				: picked.kind === 'piece'
					? (desk.trial.pieces.find((p) => p.name === picked?.name)?.title ?? picked.name)
					: `${lineName(picked.name)}${picked.kind === 'level' ? ' level' : ''}`
			: '',
	);
	const lit = $derived(new Set(picked ? [picked.kind === 'level' ? '' : picked.name] : []));

	function choose(offer: Offer): void {
		before = desk.trial.pieces;
		editing = {
			isNew: true,
			step: newStep(offer.kind, offer.params, { version: offer.version, half: offer.half as Half }),
		};
		attempt(editing.step);
	}

	function attempt(step: Step): void {
		if (!desk.job || !editing) return;
		editing = { ...editing, step };
		desk.trial.try(withStep(desk.job.recipe, step));
	}

	function open(uid: string): void {
		const step = desk.job?.recipe.steps?.find((s) => s.uid === uid);
		if (!step) return;
		picked = null;
		before = desk.trial.pieces;
		editing = { step, isNew: false };
	}

	async function keep(): Promise<void> {
		if (!(await allRead()) || !editing) return;
		const { step, isNew } = editing;
		const words = stage?.words ?? operation?.title ?? step.kind;
		if (await desk.deeds.keep((recipe) => withStep(recipe, step), isNew ? words : `Changed: ${words}`))
			done();
	}

	function leave(): void {
		done();
		desk.leave();
	}

	function done(): void {
		editing = null;
		picked = null;
		waiting = null;
		// What had the focus is gone: it goes back to where one points.
		void tick().then(
			() => document.activeElement === document.body && document.getElementById('thing')?.focus(),
		);
	}

	/** A thing was pointed at: it fills the field that waits, or asks what can be done with it. */
	function pick(subject: Subject): void {
		if (!editing) picked = subject;
		else if (waiting && subject.kind === 'line') void setLine(waiting, subject);
	}

	/** A place was drawn along its line. */
	function place(name: string, share: number): void {
		if (!editing) return;
		const along = { ...placeIn(editing.step, name), fraction: share };
		attempt({ ...editing.step, params: { ...editing.step.params, [name]: along } });
	}

	async function setLine(name: string, subject: Subject): Promise<void> {
		if (!editing || !desk.job) return;
		const field = operation?.fields.find((f) => f.name === name);
		const { id, sheet, recipe } = desk.job;
		const body = { sheet: sheet.id, recipe, job: id, ...subject };
		const found = await desk.ask<Line>(api.POST('/api/lines', { body }));
		if (!found) return;
		const { fraction, ...line } = found;
		const entered = field?.kind === 'place' ? { ...line, fraction } : line;
		attempt({ ...editing.step, params: { ...editing.step.params, [name]: entered } });
		waiting = null;
	}

	function key(event: KeyboardEvent): void {
		if (event.key === 'Escape' && (editing || picked)) {
			if (editing) leave();
			picked = null;
		}
	}
</script>

<svelte:window onkeydown={key} />

{#snippet form()}
	{#if editing && operation}
		<StepForm
			{operation}
			step={editing.step}
			{stage}
			isNew={editing.isNew}
			places={places.lines}
			{waiting}
			onchange={attempt}
			onwait={(field) => (waiting = field)}
			online={setLine}
			onkeep={keep}
			onleave={leave}
		/>
	{/if}
{/snippet}

<TableAndPanel problem={desk.trial.problem}>
	{#snippet table()}
		<Table
			pieces={desk.trial.pieces}
			under={[...(old.length ? [{ pieces: old }] : []), ...(other ? [{ pieces: other }] : [])]}
			still={!!editing}
			places={editing && operation ? places.of(operation, editing.step) : []}
			onplace={place}
			{lit}
			onpick={pick}
			label={`The pattern: ${desk.trial.pieces.map((piece) => piece.title.toLowerCase()).join(', ')}`}
		/>
	{/snippet}
	{#snippet panel()}
		{#if editing?.isNew}
			{@render form()}
		{:else if picked}
			<Offers subject={picked} {label} onchoose={choose} onleave={() => (picked = null)} />
		{:else}
			<p class="choose">
				<label for="thing">Point at the table, or choose</label>
				<select
					id="thing"
					class="field"
					use:openedFirst
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
		<RecipeList opened={editing && !editing.isNew ? editing.step.uid : null} {form} onopen={open} />
		{#if !editing}
			<OtherPattern
				onlay={(laid) => (other = laid)}
				ontake={(step) => ((editing = { step, isNew: true }), attempt(step))}
			/>
		{/if}
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
