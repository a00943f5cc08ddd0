<!-- The lay plan's panel: of which cloth, how folded, what it needs, what would save cloth, what is wrong with it. -->
<script lang="ts">
	import type { ClothFold } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { reading, shown, spoken } from '../../lib/units.svelte';
	import type { CutTableKept } from './cutTable.svelte';
	import type { Laying } from './laying.svelte';
	import RunOfSizes from './RunOfSizes.svelte';
	import { FOLDS, sold } from './words';

	interface Props {
		table: CutTableKept;
		laying: Laying;
	}
	let { table, laying }: Props = $props();
	const desk = getDesk();

	let fold = $state<ClothFold | ''>('');
	const uses = $derived(table.value?.uses ?? []);
	const cloth = $derived(table.value?.kept.cloths?.[laying.use] ?? null);
	const kept = $derived(table.value?.kept.plans?.[laying.use] ?? null);
	const laid = $derived(laying.shown);
	const stale = $derived(!!laid && laid.of !== uses.find((one) => one.use === laying.use)?.of);
	const inHand = $derived(laying.current === null ? null : (laid?.plan.placed[laying.current] ?? null));

	$effect(() => {
		if (uses.length && !uses.some((one) => one.use === laying.use)) laying.use = uses[0]!.use;
	});

	async function lay(effort: number, as: ClothFold | '' = fold): Promise<void> {
		fold = as;
		await laying.begin(as || null, effort);
	}
</script>

{#if !cloth}
	<p class="soft">No cloth is chosen yet: take one from the shelf, or type its width, under Cloths.</p>
{/if}
<div class="row">
	<label>
		<span class="soft">Of which cloth</span>
		<select class="field" bind:value={laying.use} disabled={laying.work.underWay}>
			{#each uses as one (one.use)}<option value={one.use}>{one.title}</option>{/each}
		</select>
	</label>
	<label>
		<span class="soft">Folded</span>
		<select class="field" bind:value={fold} disabled={laying.work.underWay}>
			<option value="">as the cloth says</option>
			{#each FOLDS as [value, words] (value)}<option {value}>{words}</option>{/each}
		</select>
	</label>
	<NumberField
		label="How many garments"
		value={table.value?.kept.times ?? 1}
		unit=""
		low={1}
		high={50}
		onvalue={(times) => void table.cut(Math.round(times))}
	/>
</div>
<RunOfSizes {table} />
<div class="row">
	{#if laying.work.underWay}
		<span role="status">
			Laying… {laid ? `${shown(laid.plan.length)} so far` : 'the first plan is coming'}
		</span>
		<button class="button" onclick={() => void laying.stop()}>Stop, and take this one</button>
	{:else}
		<button class="button main" disabled={!cloth} onclick={() => void lay(1)}>Lay the pieces</button>
		<button class="button" disabled={!cloth || !laid} onclick={() => void lay(3)}>Look longer</button>
	{/if}
</div>
{#if laying.work.problem}<ProblemNote problem={laying.work.problem} />{/if}
{#if laying.problem}<ProblemNote problem={laying.problem} />{/if}

{#if laid}
	<dl>
		<dt>Needs</dt>
		<dd>{shown(laid.plan.length)}</dd>
		<dt>Buy</dt>
		<dd><strong>{sold(laid.bought, reading.unit)}</strong></dd>
		<dt>Becomes pieces</dt>
		<dd>{Math.round(laid.plan.utilisation * 100)} %</dd>
		{#if laid.decides}
			<dt>Decides the length</dt>
			<dd>{laid.decides}</dd>
		{/if}
	</dl>
	{#if laid.thumb}<p class="soft">{spoken(laid.thumb)}</p>{/if}
	{#if laid.too_little}
		<p class="note wrong">
			There is {shown(cloth?.length ?? 0)} at hand: {shown(laid.too_little)} too little.
		</p>
	{/if}
	{#each laid.faults as fault, i (i)}<p class="note wrong">{spoken(fault.words)}</p>{/each}
	{#if stale && !laying.work.underWay}
		<p class="note wrong" role="alert">
			The pieces or the cloth have changed since this plan was laid. Lay them again.
		</p>
	{/if}
	<div class="row">
		{#if laying.fresh}
			<button
				class="button main"
				disabled={desk.deeds.busy || stale || !!laid.faults.length}
				title={laid.faults.length ? 'Set right what is wrong with it first' : ''}
				onclick={() => void laying.keep()}
			>
				Keep this plan{laying.byHand ? ', as moved' : ''}
			</button>
			{#if kept}<button class="button" onclick={() => laying.leave()}>Back to the kept one</button>{/if}
		{:else if kept && !stale}
			<a
				class="button"
				href={`/api/jobs/${desk.job?.id}/lay-plans/${laying.use}/print?unit=${reading.unit}`}
				download>Print the plan</a
			>
		{/if}
	</div>
	<h2>Move by hand</h2>
	{#if inHand && laying.current !== null}
		<p>
			<strong>{inHand.title}</strong> is in hand. Drag it, or move it by the arrow keys; it is drawn up to what
			it nearly touches.
		</p>
		<div class="row">
			<button class="button small" onclick={() => void laying.move({ turn: (inHand.turn + 180) % 360 })}>
				Turn it round (T)
			</button>
			<button class="button small" onclick={() => void laying.move({ flipped: !inHand.flipped })}>
				Turn it over (O)
			</button>
			<button class="button small" onclick={() => void laying.move({ along: 0, across: 0 })}>
				Snap to its neighbours
			</button>
		</div>
	{:else}
		<p class="soft">Point at a piece to take it in hand, or go through them with N and P on the plan.</p>
	{/if}
	{#if laid.savings.length}
		<h2>What would save cloth</h2>
		<ul>
			{#each laid.savings as saving, i (i)}
				<li>
					{spoken(saving.words)} <strong>Saves {shown(saving.saves)}.</strong>
					{#if saving.fold}
						<button class="button small" onclick={() => void lay(1, saving.fold!)}>Lay it so</button>
					{/if}
				</li>
			{/each}
		</ul>
	{/if}
{/if}

<style>
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		align-items: end;
		margin: 0.5rem 0;
	}
	h2 {
		font-size: 1.1rem;
		margin: 0.8rem 0 0.3rem;
	}
	p {
		margin: 0.4rem 0;
	}
	dl {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: 0.15rem 0.8rem;
		margin: 0.5rem 0;
		font-variant-numeric: tabular-nums;
	}
	dt {
		color: var(--ink-soft);
	}
	dd {
		margin: 0;
	}
	li {
		padding: 0.3rem 0;
		border-bottom: 1px solid var(--rule);
	}
</style>
