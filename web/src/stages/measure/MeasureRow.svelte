<!-- One measure on the sheet: its name, the number as typed, the same in the other unit, and what is odd about it. -->
<script lang="ts">
	import type { Measure, Review } from '../../lib/api/client';
	import { show, spoken, type Unit } from '../../lib/units.svelte';
	import type { SheetTaking } from './sheet.svelte';

	interface Props {
		measure: Measure;
		sheet: SheetTaking;
		unit: Unit;
		needed: boolean;
		onkeydown: (event: KeyboardEvent) => void;
	}
	let { measure, sheet, unit, needed, onkeydown }: Props = $props();

	const apart = $derived(sheet.hasSides(measure.symbol));
	const keys = $derived(apart ? [`${measure.symbol}.left`, `${measure.symbol}.right`] : [measure.symbol]);
	const review = $derived<Review | null>(sheet.review);
	const retake = $derived(review?.retake.find((r) => r.symbol === measure.symbol));
	const inDoubt = $derived(
		!!retake || review?.contradictions.some((c) => c.symbols.includes(measure.symbol)),
	);
	const estimate = $derived(review?.estimates.find((e) => e.symbol === measure.symbol));

	function judged(key: string) {
		return review?.readings.find((r) => r.symbol === key);
	}

	function side(key: string): string {
		return key.slice(measure.symbol.length + 1);
	}
</script>

<div
	class="row"
	class:contradicted={inDoubt}
	class:pointed={sheet.pointed === measure.symbol}
	role="presentation"
	onpointerenter={() => (sheet.pointed = measure.symbol)}
	data-row={measure.symbol}
>
	{#each keys as key (key)}
		{@const found = judged(key)}
		{@const text = sheet.text(key)}
		{@const read = found?.unit ?? unit}
		{@const odd = found?.error || found?.remark || ''}
		{@const again = sheet.readings[key]?.again?.length ?? 0}
		<label for="m-{key}">
			{measure.name}{#if apart},
				{side(key)}{/if}{#if needed && !text.trim()}<span class="needed">&nbsp;needed</span>{/if}
		</label>
		<input
			id="m-{key}"
			data-measure={key}
			class="field figures"
			autocomplete="off"
			value={text}
			oninput={(e) => sheet.type(key, e.currentTarget.value)}
			{onkeydown}
			onfocus={() => (sheet.pointed = measure.symbol)}
			aria-invalid={found?.error ? 'true' : undefined}
			aria-describedby={odd ? `m-${key}-odd` : undefined}
		/>
		<span class="unit">{text.trim() && read === unit && measure.kind !== 'cup' ? unit : ''}</span>
		<span class="other figures" class:estimated={!found && estimate}>
			{#if found?.cm && again}
				{show(found.cm, unit)} of {again + 1}{#if found.asks_again}<b> apart</b>{/if}
			{:else if found?.cm}
				{read === 'cm' ? `${found.shown_in} in` : `${found.shown_cm} cm`}
			{:else if estimate && !text.trim()}
				<span title="estimated: {spoken(estimate.worked)}"
					>est. {show(estimate.cm, unit)} ± {show(estimate.spread, unit)}</span
				>
			{/if}
		</span>
		{#if odd}
			<p class="odd" class:wrong={found?.error} id="m-{key}-odd">
				{spoken(odd)}
				{#if found?.suggestion}
					<button class="button small" onclick={() => sheet.type(key, found.suggestion)}
						>Yes: {found.suggestion}</button
					>
				{/if}
			</p>
		{/if}
	{/each}
</div>

<style>
	.row {
		display: grid;
		grid-template-columns: 1fr 5.8rem 1.4rem 7.6rem;
		gap: 0.2rem 0.4rem;
		align-items: center;
		padding: 0.2rem 0.3rem;
		border-bottom: 1px solid var(--rule);
	}
	.row.pointed {
		background: var(--chalk-soft);
	}
	.row:focus-within label {
		font-weight: 600;
	}
	.contradicted label {
		color: var(--amber);
	}
	.contradicted label::after {
		content: ' ≠';
	}
	.needed {
		color: var(--amber);
		font-size: 0.88rem;
	}
	input {
		font-size: 1.1rem;
		text-align: right;
		width: 100%;
	}
	.unit,
	.other {
		color: var(--ink-soft);
	}
	.other {
		text-align: right;
		font-size: 0.9rem;
		white-space: nowrap;
	}
	.estimated {
		font-style: italic;
	}
	.odd {
		grid-column: 1 / -1;
		margin: 0 0 0.2rem;
		color: var(--amber);
		font-size: 0.92rem;
	}
	.odd.wrong {
		color: var(--wax);
	}
</style>
