<!-- An amount of a step: pulled along its range, or typed in either unit with its sign. -->
<script lang="ts">
	import type { Field } from '../api/client';
	import NumberField from '../parts/NumberField.svelte';

	interface Props {
		field: Field;
		value: number;
		onvalue: (value: number) => void;
	}
	let { field, value, onvalue }: Props = $props();

	let typedField: NumberField;
	const isLength = $derived(field.kind === 'length');
	const step = $derived(field.kind === 'count' ? 1 : isLength ? 0.1 : 0.01);
	/** A share is read and written as per cent. */
	const times = $derived(field.unit === 'share' ? 100 : 1);
	const unit = $derived(isLength ? 'cm' : field.unit === 'share' ? '%' : field.unit);
</script>

<div class="amount">
	<NumberField
		bind:this={typedField}
		label={field.meaning}
		labelled="above"
		value={value * times}
		{unit}
		low={field.low === null ? null : field.low * times}
		high={field.high === null ? null : field.high * times}
		onvalue={(entered) => onvalue(entered / times)}
	>
		{#snippet before()}
			<input
				type="range"
				aria-label="{field.meaning}: pull"
				min={field.low ?? -20}
				max={field.high ?? 20}
				{step}
				{value}
				oninput={(e) => {
					typedField.reset();
					onvalue(Number(e.currentTarget.value));
				}}
			/>
		{/snippet}
	</NumberField>
</div>

<style>
	.amount {
		padding: 0.25rem 0;
	}
	input {
		flex: 1;
		min-width: 0;
		accent-color: var(--chalk);
	}
</style>
