<!-- Check: what does not agree and what would fix it; seams walked; the ease on the body. -->
<script lang="ts">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
	import { searchParams } from 'sv-router';
	import type { Walk } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import TableAndPanel from '../../lib/parts/TableAndPanel.svelte';
	import Table from '../../lib/table/Table.svelte';
	import Checks from './Checks.svelte';
	import EaseMap from './EaseMap.svelte';
	import SeamWalk from './SeamWalk.svelte';

	const desk = getDesk();
	desk.begin({ against: null, cut: false });

	const PANELS = [
		{ value: 'checks', label: 'Checks' },
		{ value: 'walk', label: 'Walk' },
		{ value: 'ease', label: 'Ease on the body' },
	];
	const shown = $derived(String(searchParams.get('panel') ?? 'checks'));
	let drawn = $state<string[]>([]);
	const lit = $derived(new Set(drawn));
	let walk = $state.raw<{ walk: Walk; at: number } | null>(null);
</script>

<TableAndPanel problem={desk.trial.problem}>
	{#snippet table()}
		<Table
			pieces={desk.trial.pieces}
			{lit}
			walk={shown === 'walk' ? walk : null}
			label={`The pattern: ${desk.trial.pieces.map((piece) => piece.title.toLowerCase()).join(', ')}`}
		/>
	{/snippet}
	{#snippet panel()}
		<SegmentedControl value={shown} onValueChange={(e) => searchParams.set('panel', e.value ?? 'checks')}>
			<SegmentedControl.Label class="sr-only">Show</SegmentedControl.Label>
			<SegmentedControl.Control class="w-full gap-0! p-1!">
				{#each PANELS as { value, label } (value)}
					<SegmentedControl.Item {value} class="flex-1 px-1!">
						<SegmentedControl.ItemText>{label}</SegmentedControl.ItemText>
						<SegmentedControl.ItemHiddenInput />
					</SegmentedControl.Item>
				{/each}
			</SegmentedControl.Control>
		</SegmentedControl>
		<div class="panel">
			{#if shown === 'walk'}
				<SeamWalk onwalk={(found) => (walk = found)} ondraws={(names) => (drawn = names)} />
			{:else if shown === 'ease'}
				<EaseMap ondraws={(names) => (drawn = names)} />
			{:else}
				<Checks ondraws={(names) => (drawn = names)} />
			{/if}
		</div>
	{/snippet}
</TableAndPanel>

<style>
	.panel {
		flex: 1;
		overflow: auto;
		min-height: 0;
		margin-top: 0.6rem;
	}
</style>
