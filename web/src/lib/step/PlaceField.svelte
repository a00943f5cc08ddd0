<!-- A place on a line: so far from a named end of it, typed or pulled, in the reader's unit. -->
<script lang="ts">
	import type { PlaceLine } from '../api/client';
	import AmountField from './AmountField.svelte';

	interface Props {
		meaning: string;
		line: PlaceLine;
		/** How far along the line as sewn, 0…1 from its start. */
		fraction: number;
		onfraction: (fraction: number) => void;
	}
	let { meaning, line, fraction, onfraction }: Props = $props();

	/** Which end it is told from; at first the nearer one. */
	let chosen = $state<'start' | 'end' | null>(null);
	const from = $derived(chosen ?? (fraction <= 0.5 ? 'start' : 'end'));
	const away = $derived(line.length * (from === 'start' ? fraction : 1 - fraction));

	function moved(length: number): void {
		const share = line.length ? Math.min(Math.max(length / line.length, 0), 1) : 0;
		// The end stays the one that was named, however far the place is moved.
		chosen = from;
		onfraction(from === 'start' ? share : 1 - share);
	}
</script>

<div class="place">
	<label>
		<span class="soft">from the</span>
		<select
			class="field"
			aria-label="{meaning}: from which end"
			value={from}
			onchange={(e) => (chosen = e.currentTarget.value as 'start' | 'end')}
		>
			<option value="start">{line.start}</option>
			<option value="end">{line.end}</option>
		</select>
	</label>
	<AmountField
		field={{
			name: 'away',
			meaning: `from the ${from === 'start' ? line.start : line.end}`,
			kind: 'length',
			unit: 'cm',
			low: 0,
			high: line.length,
			default: 0,
			choices: [],
			only: [],
			called: {},
		}}
		value={away}
		onvalue={moved}
	/>
</div>

<style>
	.place label {
		display: flex;
		align-items: center;
		gap: 0.4rem;
		margin-top: 0.2rem;
	}
	select {
		flex: 1;
		min-width: 0;
	}
</style>
