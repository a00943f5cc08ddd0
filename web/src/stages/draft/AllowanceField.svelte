<!-- An allowance where its number stands: typed in either unit, and put back to the usual. -->
<script lang="ts">
	import { RotateCcw } from '@lucide/svelte';
	import type { Allowance } from '../../lib/api/client';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import { shown } from '../../lib/units.svelte';

	interface Props {
		allowance: Allowance;
		/** Told the new value in the allowance's unit, or null for the usual. */
		onset: (value: number | null) => void;
		hideLabel?: boolean;
	}
	let { allowance, onset, hideLabel = false }: Props = $props();

	/** States that the maker made, and can take back. */
	const OWN: Record<string, string> = { overridden: 'Set for this job', house: 'A house rule' };
	const usual = $derived(
		allowance.unit === 'cm' ? shown(allowance.default) : `${allowance.default} ${allowance.unit}`,
	);
</script>

<div class="allowance" class:changed={allowance.state !== 'usual'}>
	<NumberField
		label={allowance.label}
		{hideLabel}
		value={allowance.value}
		unit={allowance.unit}
		low={allowance.low}
		high={allowance.high}
		onvalue={onset}
	>
		{#snippet before()}
			{#if allowance.state !== 'usual'}
				<button
					class="reset"
					title={`${OWN[allowance.state] ?? allowance.reason}. Back to the usual ${usual}`}
					aria-label={`${allowance.label}: back to the usual`}
					disabled={!(allowance.state in OWN)}
					onclick={() => onset(null)}><RotateCcw size={15} /></button
				>
			{/if}
		{/snippet}
	</NumberField>
</div>

<style>
	.changed :global(input) {
		border-color: var(--chalk);
		border-width: 2px;
		font-weight: 600;
	}
	.reset {
		padding: 0.3rem;
		color: var(--chalk);
		cursor: pointer;
	}
</style>
