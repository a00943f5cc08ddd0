<!-- Draft: the table and the sums, pointing at each other; ease changed where the number stands. -->
<script lang="ts">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
	import { searchParams } from 'sv-router';
	import { getDesk } from '../../lib/desk/context';
	import TableAndPanel from '../../lib/parts/TableAndPanel.svelte';
	import Table from '../../lib/table/Table.svelte';
	import Checks from './Checks.svelte';
	import Choices from './Choices.svelte';
	import Sums from './Sums.svelte';

	const desk = getDesk();
	desk.begin({ against: null, cut: false });

	const PANELS = [
		{ value: 'choices', label: 'Ease' },
		{ value: 'sums', label: 'Sums' },
		{ value: 'checks', label: 'Checks' },
	];
	const shown = $derived(String(searchParams.get('panel') ?? 'choices'));

	let pointed = $state<string | null>(null);
	let drawn = $state<string[]>([]);
	const lit = $derived(new Set(drawn));
	const odd = $derived(
		desk.preview?.checks.filter((c) => c.verdict === 'fails' || c.verdict === 'warns').length ?? 0,
	);
</script>

<TableAndPanel problem={desk.draftProblem}>
	{#snippet table()}
		<Table
			pieces={desk.pieces}
			{lit}
			onpoint={(name) => (pointed = name)}
			label="The drafted bodice, front and back"
		/>
	{/snippet}
	{#snippet panel()}
		<SegmentedControl value={shown} onValueChange={(e) => searchParams.set('panel', e.value ?? 'choices')}>
			<SegmentedControl.Label class="sr-only">Show</SegmentedControl.Label>
			<SegmentedControl.Control class="w-full">
				<SegmentedControl.Indicator />
				{#each PANELS as { value, label } (value)}
					<SegmentedControl.Item {value} class="flex-1">
						<SegmentedControl.ItemText>
							{label}{value === 'checks' && odd ? ` (${odd})` : ''}
						</SegmentedControl.ItemText>
						<SegmentedControl.ItemHiddenInput />
					</SegmentedControl.Item>
				{/each}
			</SegmentedControl.Control>
		</SegmentedControl>
		<div class="panel">
			{#if shown === 'sums'}
				<Sums {pointed} ondraws={(names) => (drawn = names)} />
			{:else if shown === 'checks'}
				<Checks ondraws={(names) => (drawn = names)} />
			{:else}
				<Choices {pointed} ondraws={(names) => (drawn = names)} />
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
