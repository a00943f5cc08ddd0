<!-- Cut: from the checked pattern to cloth. Pieces made ready, cloths, the lay plan, the sums, the lists. -->
<script lang="ts">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
	import { searchParams } from 'sv-router';
	import { getDesk } from '../../lib/desk/context';
	import TableAndPanel from '../../lib/parts/TableAndPanel.svelte';
	import { StepWork } from '../../lib/step/stepWork.svelte';
	import type { Subject } from '../../lib/table/picking';
	import Table from '../../lib/table/Table.svelte';
	import Cloths from './Cloths.svelte';
	import { CutTableKept } from './cutTable.svelte';
	import { Laying } from './laying.svelte';
	import LayPanel from './LayPanel.svelte';
	import LaySheet from './LaySheet.svelte';
	import Lists from './Lists.svelte';
	import { Plotter } from './plotter.svelte';
	import PlotterPanel from './PlotterPanel.svelte';
	import PlotSheet from './PlotSheet.svelte';
	import Ready from './Ready.svelte';
	import Worksheets from './Worksheets.svelte';

	const desk = getDesk();
	desk.begin({ cut: true });

	const PARTS = [
		{ value: 'pieces', label: 'Pieces' },
		{ value: 'cloths', label: 'Cloths' },
		{ value: 'lay', label: 'Lay plan' },
		{ value: 'sums', label: 'Sums' },
		{ value: 'lists', label: 'Lists' },
		{ value: 'plotter', label: 'Plotter' },
	];
	const part = $derived(String(searchParams.get('part') ?? 'pieces'));

	const kept = new CutTableKept(desk);
	const laying = new Laying(desk, kept);
	const plotter = new Plotter(desk);
	// What follows of the pieces is asked for anew whenever the job has moved on.
	$effect(() => {
		if (desk.job?.version) void kept.load();
	});

	let lit = $state<string[]>([]);
	/** What was pointed at, to be made ready. */
	let picked = $state.raw<Subject | null>(null);
	const work = new StepWork(desk, () => undefined);
	const lights = $derived(new Set([...lit, ...(picked && part === 'pieces' ? [picked.name] : [])]));

	/** A thing was pointed at: it fills the field of a step that waits, or is made ready. */
	function pick(subject: Subject): void {
		if (work.editing) work.pick(subject);
		else picked = subject;
	}

	function key(event: KeyboardEvent): void {
		if (event.key !== 'Escape') return;
		if (work.editing) work.leave();
		else picked = null;
	}
</script>

<svelte:window onkeydown={key} />

<TableAndPanel problem={desk.trial.problem}>
	{#snippet table()}
		{#if part === 'lay' && laying.shown}
			<LaySheet
				laid={laying.shown}
				current={laying.current}
				onpick={(number) => (laying.current = number)}
				onmove={(by) => void laying.move(by)}
			/>
		{:else if part === 'plotter' && plotter.shown}
			<PlotSheet plot={plotter.shown} />
		{:else}
			<Table
				pieces={desk.trial.pieces}
				lit={lights}
				under={work.old.length ? [{ pieces: work.old }] : []}
				still={!!work.editing}
				places={work.places}
				onplace={work.place}
				onpick={part === 'pieces' ? pick : null}
				showCutting
				label="The pieces with their cutting lines"
			/>
		{/if}
	{/snippet}
	{#snippet panel()}
		<div class="parts">
			<SegmentedControl value={part} onValueChange={(e) => searchParams.set('part', e.value ?? 'pieces')}>
				<SegmentedControl.Control>
					<SegmentedControl.Indicator />
					{#each PARTS as { value, label } (value)}
						<SegmentedControl.Item {value}>
							<SegmentedControl.ItemText>{label}</SegmentedControl.ItemText>
							<SegmentedControl.ItemHiddenInput />
						</SegmentedControl.Item>
					{/each}
				</SegmentedControl.Control>
			</SegmentedControl>
		</div>
		{#if part === 'pieces'}
			<Ready onlit={(names) => (lit = names)} {picked} {work} onpick={(subject) => (picked = subject)} />
		{:else if part === 'cloths'}
			<Cloths table={kept} />
		{:else if part === 'lay'}
			<LayPanel table={kept} {laying} />
		{:else if part === 'sums'}
			<Worksheets table={kept} />
		{:else if part === 'lists'}
			<Lists table={kept} />
		{:else}
			<PlotterPanel {plotter} />
		{/if}
	{/snippet}
</TableAndPanel>

<style>
	/* Six parts in one row. */
	.parts :global([data-part='item']) {
		padding-inline: 0.35rem;
		font-size: 0.9rem;
	}
</style>
