<!-- Style: point at a thing on the table, choose what to do with it, see it at once; the recipe beside it. -->
<script lang="ts">
	import { tick } from 'svelte';
	import type { Piece } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { openedFirst } from '../../lib/parts/opened';
	import TableAndPanel from '../../lib/parts/TableAndPanel.svelte';
	import { StepWork } from '../../lib/step/stepWork.svelte';
	import WorkedStep from '../../lib/step/WorkedStep.svelte';
	import { subjects, type Subject } from '../../lib/table/picking';
	import Table from '../../lib/table/Table.svelte';
	import { lineName } from '../../lib/words';
	import Offers from './Offers.svelte';
	import OtherPattern from './OtherPattern.svelte';
	import RecipeList from './RecipeList.svelte';

	const desk = getDesk();
	desk.begin();

	let picked = $state.raw<Subject | null>(null);
	const work = new StepWork(desk, done);
	/** Another job's pattern, laid under this one. */
	let other = $state.raw<Piece[] | null>(null);

	const all = $derived(subjects(desk.trial.pieces));
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
	const under = $derived([
		...(work.old.length ? [{ pieces: work.old }] : []),
		...(other ? [{ pieces: other }] : []),
	]);

	function open(uid: string): void {
		if (work.open(uid)) picked = null;
	}

	function done(): void {
		picked = null;
		// What had the focus is gone: it goes back to where one points.
		void tick().then(
			() => document.activeElement === document.body && document.getElementById('thing')?.focus(),
		);
	}

	/** A thing was pointed at: it fills the field that waits, or asks what can be done with it. */
	function pick(subject: Subject): void {
		if (work.editing) work.pick(subject);
		else picked = subject;
	}

	function key(event: KeyboardEvent): void {
		if (event.key === 'Escape' && (work.editing || picked)) {
			if (work.editing) work.leave();
			picked = null;
		}
	}
</script>

<svelte:window onkeydown={key} />

{#snippet form()}
	<WorkedStep {work} />
{/snippet}

<TableAndPanel problem={desk.trial.problem}>
	{#snippet table()}
		<Table
			pieces={desk.trial.pieces}
			{under}
			still={!!work.editing}
			places={work.places}
			onplace={work.place}
			{lit}
			onpick={pick}
			label={`The pattern: ${desk.trial.pieces.map((piece) => piece.title.toLowerCase()).join(', ')}`}
		/>
	{/snippet}
	{#snippet panel()}
		{#if work.editing?.isNew}
			{@render form()}
		{:else if picked}
			<Offers
				subject={picked}
				{label}
				onchoose={(offer) => work.choose(offer)}
				onleave={() => (picked = null)}
			/>
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
		<RecipeList
			opened={work.editing && !work.editing.isNew ? work.editing.step.uid : null}
			{form}
			onopen={open}
		/>
		{#if !work.editing}
			<OtherPattern
				onlay={(laid) => (other = laid)}
				ontake={(step) => (work.begin(step, true), work.attempt(step))}
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
