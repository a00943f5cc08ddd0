<!-- True rules along the top and the left of the table. -->
<script lang="ts">
	import { ticks, type View } from './view';

	let { view, width, height, unit }: { view: View; width: number; height: number; unit: 'cm' | 'in' } =
		$props();

	const THICK = 26;
	const scale = $derived(width / view.width);
	const across = $derived(ticks(view.x, view.x + view.width, unit, scale));
	const up = $derived(ticks(-(view.y + view.height), -view.y, unit, scale));
	const SIZES = [5, 8, 11];
</script>

<svg class="rule" {width} height={THICK} aria-hidden="true">
	{#each across as tick (tick.at)}
		{@const x = (tick.at - view.x) * scale}
		<path d="M{x} {THICK}v{-SIZES[tick.size]!}" />
		{#if tick.label}<text {x} y="11">{tick.label}</text>{/if}
	{/each}
</svg>
<svg class="rule" width={THICK} {height} aria-hidden="true">
	{#each up as tick (tick.at)}
		{@const y = (-tick.at - view.y) * scale}
		<path d="M{THICK} {y}h{-SIZES[tick.size]!}" />
		{#if tick.label}<text x="9" {y} dy="4">{tick.label}</text>{/if}
	{/each}
	<rect width={THICK} height={THICK} />
	<text x={THICK / 2} y="16">{unit}</text>
</svg>

<style>
	.rule {
		position: absolute;
		left: 0;
		top: 0;
		background: color-mix(in oklch, var(--paper) 88%, transparent);
		pointer-events: none;
	}
	path {
		stroke: var(--ink-soft);
		stroke-width: 1;
	}
	rect {
		fill: var(--paper);
	}
	text {
		fill: var(--ink-soft);
		font-size: 11px;
		text-anchor: middle;
		font-variant-numeric: tabular-nums;
	}
</style>
