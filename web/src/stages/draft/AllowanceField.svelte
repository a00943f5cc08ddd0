<!-- An allowance where its number stands: typed in either unit, and put back to the usual. -->
<script lang="ts">
	import { RotateCcw } from '@lucide/svelte';
	import { answered, api, asProblem, type Allowance } from '../../lib/api/client';
	import { reading, show, typed } from '../../lib/units.svelte';

	interface Props {
		allowance: Allowance;
		/** Told the new value in the allowance's unit, or null for the usual. */
		onset: (value: number | null) => void;
		hideLabel?: boolean;
	}
	let { allowance, onset, hideLabel = false }: Props = $props();

	const id = $props.id();
	/** States that the maker made, and can take back. */
	const OWN: Record<string, string> = { overridden: 'Set for this job', house: 'A house rule' };
	let editing = $state<string | null>(null);
	let error = $state('');

	const isLength = $derived(allowance.unit === 'cm');
	const text = $derived(
		editing ??
			(isLength ? typed(allowance.value, reading.unit) : String(Math.round(allowance.value * 1000) / 1000)),
	);
	const unit = $derived(isLength ? reading.unit : allowance.unit);
	const range = $derived(
		isLength
			? `${show(allowance.low, reading.unit)} to ${show(allowance.high, reading.unit)} ${reading.unit}`
			: `${allowance.low} to ${allowance.high} ${allowance.unit}`,
	);

	async function done(): Promise<void> {
		if (editing === null) return;
		try {
			const value = isLength
				? (await answered(api.POST('/api/lengths', { body: { text: editing, unit: reading.unit } }))).cm
				: Number(editing.replace(',', '.'));
			if (Number.isNaN(value)) error = `“${editing}” is not a number.`;
			else if (value < allowance.low || value > allowance.high) error = `Enter a value from ${range}.`;
			else {
				error = '';
				editing = null;
				onset(value);
			}
		} catch (failure) {
			const problem = asProblem(failure);
			error = `${problem.message} ${problem.mend}`;
		}
	}
</script>

<div class="allowance" class:changed={allowance.state !== 'usual'}>
	<label for={id} class:sr-only={hideLabel}>{allowance.label}</label>
	<span class="value">
		{#if allowance.state !== 'usual'}
			<button
				class="reset"
				title={`${OWN[allowance.state] ?? allowance.reason}. Back to the usual ${isLength ? show(allowance.default, reading.unit) : allowance.default} ${unit}`}
				aria-label={`${allowance.label}: back to the usual`}
				disabled={!(allowance.state in OWN)}
				onclick={() => onset(null)}><RotateCcw size={15} /></button
			>
		{/if}
		<input
			{id}
			class="field figures"
			autocomplete="off"
			value={text}
			oninput={(e) => (editing = e.currentTarget.value)}
			onchange={done}
			aria-invalid={error ? 'true' : undefined}
			aria-describedby={error ? `${id}-error` : undefined}
		/>
		<span class="unit">{unit}</span>
	</span>
	{#if error}<p id="{id}-error" class="error">{error}</p>{/if}
</div>

<style>
	.allowance {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		align-items: center;
		gap: 0.2rem 0.6rem;
	}
	.value {
		display: flex;
		align-items: center;
		gap: 0.3rem;
	}
	input {
		width: 4.6rem;
		text-align: right;
		min-height: 2rem;
	}
	.unit {
		width: 1.4rem;
		color: var(--ink-soft);
	}
	.changed input {
		border-color: var(--chalk);
		border-width: 2px;
		font-weight: 600;
	}
	.reset {
		padding: 0.3rem;
		color: var(--chalk);
		cursor: pointer;
	}
	.error {
		flex-basis: 100%;
		margin: 0;
		color: var(--wax);
		font-size: 0.9rem;
		text-align: right;
	}
</style>
