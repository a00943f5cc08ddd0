<!-- The test square as it came out of the printer: whether the print can be cut by, and what to do if not. -->
<script lang="ts">
	import { api, type Printed } from '../../lib/api/client';
	import { Loaded } from '../../lib/api/loaded.svelte';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { reading, spoken } from '../../lib/units.svelte';

	const read = new Loaded<Printed>();
	let side = $state<number | null>(null);

	function measured(cm: number): void {
		side = cm;
		void read.load(api.POST('/api/test-square', { body: { side: cm, square: reading.unit } }));
	}
</script>

<NumberField
	label={`The printed square of ${reading.unit === 'cm' ? '10 cm' : '4 in'} measures`}
	value={side}
	unit="cm"
	low={0}
	onvalue={measured}
/>
{#if read.problem}
	<ProblemNote problem={read.problem} />
{:else if read.value}
	<p class:note={!read.value.true} class:wrong={!read.value.true} role="status">{spoken(read.value.words)}</p>
{/if}

<style>
	p {
		margin: 0.4rem 0;
	}
</style>
