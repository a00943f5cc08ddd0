<!-- Draft: the table and the sums, pointing at each other; ease changed where the number stands. -->
<script lang="ts">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
	import { searchParams } from 'sv-router';
	import { getDesk } from '../../lib/desk/context';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import Table from '../../lib/table/Table.svelte';
	import Checks from './Checks.svelte';
	import Choices from './Choices.svelte';
	import Sums from './Sums.svelte';

	const desk = getDesk();
	desk.against = null;
	desk.leave();

	const PANELS = [
		{ value: 'choices', label: 'Ease' },
		{ value: 'sums', label: 'Sums' },
		{ value: 'checks', label: 'Checks' },
	];
	const panel = $derived(String(searchParams.get('panel') ?? 'choices'));

	let pointed = $state<string | null>(null);
	let drawn = $state<string[]>([]);
	const lit = $derived(new Set(drawn));
	const odd = $derived(
		desk.preview?.checks.filter((c) => c.verdict === 'fails' || c.verdict === 'warns').length ?? 0,
	);
</script>

<div class="draft">
	<div class="on-table">
		<Table
			pieces={desk.pieces}
			{lit}
			onpoint={(name) => (pointed = name)}
			label="The drafted bodice, front and back"
		/>
		{#if desk.draftProblem}
			<div class="over"><ProblemNote problem={desk.draftProblem} /></div>
		{/if}
	</div>
	<aside>
		<SegmentedControl value={panel} onValueChange={(e) => searchParams.set('panel', e.value ?? 'choices')}>
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
			{#if panel === 'sums'}
				<Sums {pointed} ondraws={(names) => (drawn = names)} />
			{:else if panel === 'checks'}
				<Checks ondraws={(names) => (drawn = names)} />
			{:else}
				<Choices {pointed} ondraws={(names) => (drawn = names)} />
			{/if}
		</div>
	</aside>
</div>

<style>
	.draft {
		display: grid;
		grid-template-columns: 1fr 26rem;
		grid-template-rows: minmax(0, 1fr);
		height: 100%;
		min-height: 0;
	}
	.on-table {
		position: relative;
		min-height: 20rem;
	}
	.over {
		position: absolute;
		inset: 3rem 2rem auto 3rem;
	}
	aside {
		display: flex;
		flex-direction: column;
		min-height: 0;
		border-left: 1px solid var(--rule);
		padding: 0.7rem;
		gap: 0.6rem;
	}
	.panel {
		flex: 1;
		overflow: auto;
		min-height: 0;
	}
	@media (max-width: 900px) {
		.draft {
			grid-template-columns: 1fr;
			grid-template-rows: 55% 45%;
		}
	}
</style>
