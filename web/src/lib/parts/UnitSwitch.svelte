<!-- Which unit is read and typed. A number may always state its own. -->
<script lang="ts">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
	import { readIn, reading, type Unit } from '../units.svelte';

	const UNITS: { value: Unit; label: string }[] = [
		{ value: 'cm', label: 'cm' },
		{ value: 'in', label: 'inches' },
	];
</script>

<SegmentedControl value={reading.unit} onValueChange={(e) => readIn(e.value as Unit)}>
	<SegmentedControl.Label class="sr-only">Lengths in</SegmentedControl.Label>
	<SegmentedControl.Control>
		{#each UNITS as unit (unit.value)}
			<SegmentedControl.Item value={unit.value}>
				<SegmentedControl.ItemText>{unit.label}</SegmentedControl.ItemText>
				<SegmentedControl.ItemHiddenInput />
			</SegmentedControl.Item>
		{/each}
	</SegmentedControl.Control>
</SegmentedControl>
