<!-- One measure on the sheet: its name, the number as typed, the same in the other unit, and what is odd about it. -->
<script lang="ts">
	import type { Measure, ReadingReview } from '../../lib/api/client';
	import type { Unit } from '../../lib/units.svelte';

	interface Props {
		measure: Measure;
		text: string;
		unit: Unit;
		review: ReadingReview | undefined;
		contradicted: boolean;
		ontext: (text: string) => void;
		onkeydown: (event: KeyboardEvent) => void;
		onfocus: () => void;
	}
	let { measure, text, unit, review, contradicted, ontext, onkeydown, onfocus }: Props = $props();

	const id = $derived(`m-${measure.symbol}`);
	/** The unit that the text was read in: its own where it states one. */
	const read = $derived(review?.unit ?? unit);
	const odd = $derived(review?.error || review?.remark || '');
</script>

<div class="row" class:contradicted>
	<label for={id}>{measure.name}</label>
	<input
		{id}
		data-measure={measure.symbol}
		class="field figures"
		autocomplete="off"
		value={text}
		oninput={(e) => ontext(e.currentTarget.value)}
		{onkeydown}
		{onfocus}
		aria-invalid={review?.error ? 'true' : undefined}
		aria-describedby={odd ? `${id}-odd` : undefined}
	/>
	<span class="unit">{text.trim() && read === unit ? unit : ''}</span>
	<span class="other figures">
		{#if review?.cm}{read === 'cm' ? `${review.shown_in} in` : `${review.shown_cm} cm`}{/if}
	</span>
	{#if odd}
		<p class="odd" class:wrong={review?.error} id="{id}-odd">
			{odd}
			{#if review?.suggestion}
				<button class="button small" onclick={() => ontext(review.suggestion)}
					>Yes: {review.suggestion}</button
				>
			{/if}
		</p>
	{/if}
</div>

<style>
	.row {
		display: grid;
		grid-template-columns: 1fr 6.2rem 1.6rem 5rem;
		gap: 0.2rem 0.5rem;
		align-items: center;
		padding: 0.22rem 0;
		border-bottom: 1px solid var(--rule);
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
		font-size: 0.92rem;
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
