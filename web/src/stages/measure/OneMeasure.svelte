<!-- The measure that is pointed at: how it is taken, what it drives, its readings, and what stands in for it. -->
<script lang="ts">
	import type { Measure } from '../../lib/api/client';
	import { show, shown, reading, spoken } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';
	import { MOST_READINGS, type SheetTaking } from './sheet.svelte';

	let { measure, sheet, brief = false }: { measure: Measure; sheet: SheetTaking; brief?: boolean } = $props();

	const alone = $derived(sheet.takenBy === 'alone' && measure.alone);
	const apart = $derived(sheet.hasSides(measure.symbol));
	const keys = $derived(apart ? [`${measure.symbol}.left`, `${measure.symbol}.right`] : [measure.symbol]);
	const estimate = $derived(sheet.review?.estimates.find((e) => e.symbol === measure.symbol));
	const effect = $derived(sheet.advice?.effects.find((e) => e.symbol === measure.symbol));
	const next = $derived(sheet.advice?.next.find((n) => n.symbol === measure.symbol));
	const uneven = $derived(sheet.review?.uneven.find((u) => u.symbol === measure.symbol));

	function judged(key: string) {
		return sheet.review?.readings.find((r) => r.symbol === key);
	}

	/** The readings that have a field: those typed, and one more where it is wanted or nothing was read twice yet. */
	function fields(key: string): number[] {
		const count = (sheet.readings[key]?.again ?? []).length;
		const open = judged(key)?.asks_again || count === 0 ? 1 : 0;
		return Array.from({ length: Math.min(count + open, MOST_READINGS - 1) }, (_, i) => i + 1);
	}

	const ORDINAL = ['first', 'second', 'third', 'fourth', 'fifth'];
</script>

<section class="one" aria-label={measure.name}>
	{#if !brief}<h2>{measure.name}</h2>{/if}
	<p>{spoken(measure.how)}</p>
	{#if alone}<p class="alone"><strong>Alone:</strong> {measure.alone}</p>{/if}
	{#if measure.needs_help && sheet.takenBy === 'alone'}
		<p class="soft">Taken alone it is less certain, and doubted sooner.</p>
	{/if}
	{#if !brief}
		<p class="soft">
			Drives: {measure.drives}
			{#if measure.landmarks.length}Find: {measure.landmarks.join(', ')}.{/if}
			{#if measure.tools.length}With: {measure.tools.join(', ')}.{/if}
		</p>
	{/if}
	{#if measure.schools}<p class="soft">Makers differ: {measure.schools}</p>{/if}
	<p class="soft figures">
		{#if measure.kind !== 'cup'}usually {shown(measure.low)} to {shown(measure.high)}; readings within {shown(
				measure.tolerance,
			)}.{/if}
		{#if measure.term}<abbr title="the term of ISO 8559-1, from memory">ISO 8559-1</abbr>: {measure.term}{/if}
	</p>
	{#if !brief && sheet.isTaken(measure.symbol)}
		{#each keys as key (key)}
			<div class="again">
				{#each fields(key) as number (number)}
					<label for="again-{key}-{number}"
						>{ORDINAL[number]} reading{sheet.unit(key, number) === reading.unit
							? ''
							: ` (${sheet.unit(key, number)})`}{apart
							? `, ${key.slice(measure.symbol.length + 1)}`
							: ''}</label
					>
					<input
						id="again-{key}-{number}"
						data-again={key}
						class="field figures"
						autocomplete="off"
						value={sheet.text(key, number)}
						oninput={(e) => sheet.type(key, e.currentTarget.value, number)}
					/>
				{/each}
				{#if judged(key)?.asks_again}
					<p class="odd">
						They lie {shown(judged(key)?.apart ?? 0)} apart: read it once more, the middle one counts.
					</p>
				{:else if (sheet.readings[key]?.again ?? []).length}
					<p class="soft figures">counts: {shown(judged(key)?.cm ?? 0)}, the median</p>
				{/if}
			</div>
		{/each}
	{/if}
	{#if measure.sides}
		<label class="sides">
			<input
				type="checkbox"
				checked={apart}
				onchange={(e) => sheet.setSides(measure.symbol, e.currentTarget.checked)}
			/>
			left and right apart
		</label>
		{#if uneven}
			<p class="odd">
				Left and right differ by {shown(Math.abs(uneven.left - uneven.right))}: the draft takes their middle
				on both halves, and the muslin shows the rest.
			</p>
		{/if}
	{/if}
	{#if estimate}
		<p class="estimate">
			<strong>Estimated {show(estimate.cm, reading.unit)} ± {shown(estimate.spread)}</strong>
			<span class="soft">= {spoken(estimate.worked)}; {estimate.source}</span>
		</p>
		{#if next && next.by_spread}
			<p class="soft figures">
				If that is off so far, the draft moves {shown(next.by_spread)} ({lineName(
					next.line.split(': ')[1] ?? '',
				)}).
			</p>
		{/if}
	{:else if effect?.moves}
		<p class="soft figures">
			Off by {shown(effect.off)}, it moves the draft by {shown(effect.moves)}: {effect.lines
				.slice(0, 3)
				.map((line) => lineName(line.split(': ')[1] ?? ''))
				.join(', ')}.
		</p>
	{/if}
</section>

<style>
	h2 {
		font-size: 1.15rem;
		margin: 0 0 0.25rem;
	}
	p {
		margin: 0 0 0.35rem;
	}
	.alone {
		border-left: 3px solid var(--chalk);
		padding-left: 0.6rem;
	}
	.again {
		display: grid;
		grid-template-columns: 1fr 6rem;
		gap: 0.3rem 0.6rem;
		align-items: center;
		margin: 0.3rem 0;
	}
	.again p {
		grid-column: 1 / -1;
	}
	.again input {
		text-align: right;
	}
	.odd {
		color: var(--amber);
		font-size: 0.92rem;
	}
	.sides {
		display: flex;
		gap: 0.5rem;
		align-items: center;
		margin-bottom: 0.3rem;
	}
</style>
