<!-- Draft: the table and the sums, pointing at each other; ease changed where the number stands. -->
<script lang="ts">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
	import { searchParams } from 'sv-router';
	import type { Allowance } from '../../lib/api/client';
	import { withValue } from '../../lib/desk/recipe';
	import type { Trial } from '../../lib/desk/trial.svelte';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { p } from '../../router';
	import { oddOf } from '../../lib/desk/checks';
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
	import WearerFit from './WearerFit.svelte';

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
		pulled ??= desk.trial.preview?.allowances.find((a) => a.symbol === symbol) ?? null;
		if (!pulled || !desk.trial.recipe) return;
		const { label, low, high, value: before, unit } = pulled;
		const value = Math.round(Math.min(Math.max(before + units, low), high) * 1000) / 1000;
		if (done) {
			pulled = null;
			void desk.deeds.keep(
				(recipe) => withValue(recipe, symbol, value),
				`${label}: pulled to ${value} ${unit}`.trim(),
			);
		} else desk.trial.try(withValue(desk.trial.recipe, symbol, value));
	}

	let pointed = $state<string | null>(null);
	let drawn = $state<string[]>([]);
	/** What another school would draw, laid under the draft. */
	let other = $state.raw<Trial | null>(null);
	let hidden = $state.raw<ReadonlySet<string> | null>(null);
	const lit = $derived(new Set(drawn));
	/** The measures that a draft which cannot be made asks for again. */
	const toRetake = $derived((desk.trial.problem?.where ?? []).filter((symbol) => shelf.measure(symbol)));
	const odd = $derived(oddOf(desk.trial.preview?.checks).length);
</script>

<TableAndPanel problem={desk.trial.problem}>
	{#snippet table()}
		<Table
			pieces={desk.trial.pieces}
			under={other ? [{ pieces: other.pieces }] : []}
			{lit}
			{hidden}
			handles={shown === 'ease' && desk.trial.looked.source ? (desk.trial.preview?.handles ?? []) : []}
			onpull={pull}
			onpoint={(name) => (pointed = name)}
			label={`The draft: ${desk.trial.pieces.map((piece) => piece.title.toLowerCase()).join(', ')}`}
		/>
		<UnderTheStyle />
	{/snippet}
	{#snippet fixing()}
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
				<WearerFit />
				<Blocks />
			{:else if shown === 'schools'}
				<Schools ondraws={(names) => (drawn = names)} onlay={(laid) => (other = laid)} />
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
