<!-- An amount of a step: pulled along its range, or typed in either unit with its sign. -->
<script lang="ts">
	import { answered, api, asProblem, type Field } from '../../lib/api/client';
	import { reading, shown, typed } from '../../lib/units.svelte';

	interface Props {
		field: Field;
		value: number;
		onvalue: (value: number) => void;
	}
	let { field, value, onvalue }: Props = $props();

	const id = $props.id();
	let editing = $state<string | null>(null);
	let error = $state('');
	const isLength = $derived(field.kind === 'length');
	const isShare = $derived(field.unit === 'share');
	const step = $derived(field.kind === 'count' ? 1 : isLength ? 0.1 : 0.01);
	const text = $derived(
		editing ??
			(isLength
				? `${value < 0 ? '-' : ''}${typed(Math.abs(value), reading.unit)}`
				: String(Math.round(value * 1000) / 1000)),
	);
	const unit = $derived(isLength ? reading.unit : isShare ? 'of 1' : field.unit);

	async function read(): Promise<void> {
		if (editing === null) return;
		const entered = editing.trim();
		const negative = /^[-−–]/.test(entered);
		const bare = entered.replace(/^[-−–+]\s*/, '');
		try {
			let found: number;
			if (!isLength) found = Number(bare.replace(',', '.'));
			else if (/^0*([.,]0*)?$/.test(bare) && bare) found = 0;
			else
				found = (await answered(api.POST('/api/lengths', { body: { text: bare, unit: reading.unit } }))).cm;
			found = negative ? -found : found;
			if (Number.isNaN(found)) error = `“${entered}” is not a number.`;
			else if ((field.low ?? -Infinity) > found || (field.high ?? Infinity) < found)
				error = isLength
					? `Enter a value from ${shown(field.low ?? 0)} to ${shown(field.high ?? 0)}.`
					: `Enter a value from ${field.low} to ${field.high}.`;
			else {
				error = '';
				editing = null;
				onvalue(found);
			}
		} catch (failure) {
			const problem = asProblem(failure);
			error = `${problem.message} ${problem.mend}`;
		}
	}
</script>

<div class="amount">
	<label for={id}>{field.meaning}</label>
	<span class="row">
		<input
			type="range"
			aria-label="{field.meaning}: pull"
			min={field.low ?? -20}
			max={field.high ?? 20}
			{step}
			{value}
			oninput={(e) => {
				editing = null;
				error = '';
				onvalue(Number(e.currentTarget.value));
			}}
		/>
		<input
			{id}
			class="field figures"
			autocomplete="off"
			value={text}
			oninput={(e) => (editing = e.currentTarget.value)}
			onchange={read}
			onkeydown={(e) => e.key === 'Enter' && read()}
			aria-invalid={error ? 'true' : undefined}
			aria-describedby={error ? `${id}-error` : undefined}
		/>
		<span class="unit">{unit}</span>
	</span>
	{#if error}<p id="{id}-error" class="error" role="alert">{error}</p>{/if}
</div>

<style>
	.amount {
		padding: 0.25rem 0;
	}
	label {
		display: block;
		font-size: 0.95rem;
	}
	.row {
		display: flex;
		align-items: center;
		gap: 0.5rem;
	}
	input[type='range'] {
		flex: 1;
		min-width: 0;
		accent-color: var(--chalk);
	}
	.field {
		width: 4.8rem;
	}
	.unit {
		color: var(--ink-soft);
		width: 2.4rem;
	}
	.error {
		color: var(--wax);
		margin: 0.15rem 0 0;
		font-size: 0.9rem;
	}
</style>
