<!-- Draft: the table and the sums, pointing at each other; ease changed where the number stands. -->
<script lang="ts">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
	import { searchParams } from 'sv-router';
	import type { Allowance } from '../../lib/api/client';
	import { withValue } from '../../lib/desk/recipe';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { p } from '../../router';
	import { getDesk } from '../../lib/desk/context';
	import TableAndPanel from '../../lib/parts/TableAndPanel.svelte';
	import UnderTheStyle from '../../lib/parts/UnderTheStyle.svelte';
	import Table from '../../lib/table/Table.svelte';
	import Blocks from './Blocks.svelte';
	import ByHand from './ByHand.svelte';
	import Checks from '../check/Checks.svelte';
	import EaseAndShape from './EaseAndShape.svelte';
	import Schools from './Schools.svelte';
	import Sums from './Sums.svelte';

	const desk = getDesk();
	desk.begin({ source: true });

	const PANELS = [
		{ value: 'block', label: 'Block' },
		{ value: 'ease', label: 'Ease' },
		{ value: 'schools', label: 'Schools' },
		{ value: 'sums', label: 'Sums' },
		{ value: 'hand', label: 'By hand' },
		{ value: 'checks', label: 'Checks' },
	];
	const shown = $derived(String(searchParams.get('panel') ?? 'ease'));

	/** The allowance that is being pulled on the table, as it was when it was taken hold of. */
	let pulled: Allowance | null = null;

	function pull(symbol: string, units: number, done: boolean): void {
		pulled ??= desk.preview?.allowances.find((a) => a.symbol === symbol) ?? null;
		if (!pulled || !desk.recipe) return;
		const { label, low, high, value: before, unit } = pulled;
		const value = Math.round(Math.min(Math.max(before + units, low), high) * 1000) / 1000;
		if (done) {
			pulled = null;
			void desk.keep(
				(recipe) => withValue(recipe, symbol, value),
				`${label}: pulled to ${value} ${unit}`.trim(),
			);
		} else desk.try(withValue(desk.recipe, symbol, value));
	}

	let pointed = $state<string | null>(null);
	let drawn = $state<string[]>([]);
	let hidden = $state.raw<ReadonlySet<string> | null>(null);
	const lit = $derived(new Set(drawn));
	/** The measures that a draft which cannot be made asks for again. */
	const toRetake = $derived((desk.draftProblem?.where ?? []).filter((symbol) => shelf.measure(symbol)));
	const odd = $derived(
		desk.preview?.checks.filter((c) => c.verdict === 'fails' || c.verdict === 'warns').length ?? 0,
	);
</script>

<TableAndPanel problem={desk.draftProblem}>
	{#snippet table()}
		<Table
			pieces={desk.pieces}
			under={desk.beside ? (desk.preview?.beside?.pieces ?? []) : []}
			{lit}
			{hidden}
			handles={shown === 'ease' && desk.source ? (desk.preview?.handles ?? []) : []}
			onpull={pull}
			onpoint={(name) => (pointed = name)}
			label={`The draft: ${desk.pieces.map((piece) => piece.title.toLowerCase()).join(', ')}`}
		/>
		<UnderTheStyle />
	{/snippet}
	{#snippet mending()}
		{#each toRetake as symbol (symbol)}
			<a class="button small" href={p('/jobs/:job/measure', { params: { job: desk.job!.id } })}
				>Retake: {shelf.name(symbol)}</a
			>
		{/each}
		{#if shown !== 'ease'}
			<button class="button small" onclick={() => searchParams.set('panel', 'ease')}>Give it more room</button
			>
		{/if}
	{/snippet}
	{#snippet panel()}
		<SegmentedControl value={shown} onValueChange={(e) => searchParams.set('panel', e.value ?? 'ease')}>
			<SegmentedControl.Label class="sr-only">Show</SegmentedControl.Label>
			<SegmentedControl.Control class="w-full gap-0! p-1!">
				{#each PANELS as { value, label } (value)}
					<SegmentedControl.Item {value} class="flex-1 px-1!">
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
			{:else if shown === 'block'}
				<Blocks />
			{:else if shown === 'schools'}
				<Schools ondraws={(names) => (drawn = names)} />
			{:else if shown === 'hand'}
				<ByHand onhide={(names) => (hidden = names)} ondraws={(names) => (drawn = names)} />
			{:else}
				<EaseAndShape {pointed} ondraws={(names) => (drawn = names)} />
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
