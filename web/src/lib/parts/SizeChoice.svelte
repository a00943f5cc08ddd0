<!-- Choosing a standard size: chart, size, and height where the chart leaves it open. -->
<script lang="ts">
	import { api, type Chart, type Size } from '../api/client';
	import { Loaded } from '../api/loaded.svelte';
	import { reading, show } from '../units.svelte';
	import ProblemNote from './ProblemNote.svelte';

	let { onchoose }: { onchoose: (size: Size | null) => void } = $props();

	const loaded = new Loaded<Chart[]>();
	const charts = $derived(loaded.value ?? []);
	const problem = $derived(loaded.problem);
	let key = $state('');
	let size = $state('');
	let height = $state(0);
	const own = $props.id();

	const chart = $derived(charts.find((c) => c.key === key));

	void loaded.load(api.GET('/api/charts')).then((found) => found?.[0] && take(found[0]));

	function take(found: Chart): void {
		key = found.key;
		size = found.sizes[Math.floor(found.sizes.length / 2)]?.name ?? '';
		height = found.usual_height;
		tell();
	}

	function tell(): void {
		onchoose(
			size ? { chart: key, size, height: height ? { text: String(height), unit: 'cm' } : null } : null,
		);
	}
</script>

{#if problem}<ProblemNote {problem} />{/if}
<div class="choice">
	<label for="{own}-chart">Chart</label>
	<select
		id="{own}-chart"
		class="field"
		value={key}
		onchange={(e) => take(charts.find((c) => c.key === e.currentTarget.value)!)}
	>
		{#each charts as c (c.key)}<option value={c.key}>{c.title} ({c.source || 'your own'})</option>{/each}
	</select>
	<label for="{own}-size">Size</label>
	<select id="{own}-size" class="field" bind:value={size} onchange={tell}>
		{#each chart?.sizes ?? [] as s (s.name)}<option value={s.name}>{s.name}</option>{/each}
	</select>
	{#if chart?.heights.length}
		<label for="{own}-height">Height</label>
		<select id="{own}-height" class="field" bind:value={height} onchange={tell}>
			{#each chart.heights as h (h)}<option value={h}>{show(h, reading.unit)} {reading.unit}</option>{/each}
		</select>
	{/if}
</div>

<style>
	.choice {
		display: grid;
		grid-template-columns: auto minmax(0, 1fr);
		gap: 0.5rem 0.8rem;
		align-items: center;
		margin-bottom: 0.7rem;
		max-width: 26rem;
	}
	select {
		width: 100%;
	}
</style>
