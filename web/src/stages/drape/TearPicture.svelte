<!-- The muslin as it is torn: strips across, blocks along the warp, each with the guide lines to draw on it. -->
<script lang="ts">
	import type { Tear } from '../../lib/api/client';
	import { shown } from '../../lib/units.svelte';

	let { tear }: { tear: Tear } = $props();

	let width = $state(700);
	let height = $state(500);
	/** cm. Space for the figures at the right and around. */
	const BESIDE = 34;
	const perPixel = $derived(
		Math.max((tear.muslin + BESIDE + 8) / Math.max(width, 1), (tear.length + 16) / Math.max(height, 1)),
	);
	const edge = $derived((tear.muslin - tear.usable) / 2);
	const strips = $derived(
		tear.strips.map((strip, i) => ({
			strip,
			top: tear.strips.slice(0, i).reduce((sum, other) => sum + other.length, 0),
			blocks: strip.blocks.map((block, j) => ({
				block,
				left: edge + strip.blocks.slice(0, j).reduce((sum, other) => sum + other.weft, 0),
			})),
		})),
	);
	const size = $derived(13 * perPixel);
</script>

<div class="surface" bind:clientWidth={width} bind:clientHeight={height}>
	<svg
		viewBox="{-4} {-8} {width * perPixel} {height * perPixel}"
		role="img"
		aria-label="The muslin, {tear.strips.length} strips, as it is torn"
	>
		<rect class="cloth" x="0" y="0" width={tear.muslin} height={tear.length} />
		{#each [edge, tear.muslin - edge] as x (x)}
			<line class="selvedge" x1={x} x2={x} y1="0" y2={tear.length} />
		{/each}
		{#each strips as { strip, top, blocks }, n (n)}
			<line class="tear" x1="0" x2={tear.muslin} y1={top + strip.length} y2={top + strip.length} />
			<text x={tear.muslin + 1.5} y={top + size * 1.4} font-size={size}>
				{n + 1}. across at {shown(strip.length)}
			</text>
			{#each blocks as { block, left } (block.key)}
				<rect class="block" x={left} y={top} width={block.weft} height={block.warp} />
				{#each block.guides as guide (guide.what)}
					{#if guide.along}
						<line class="guide" x1={left + guide.at} x2={left + guide.at} y1={top} y2={top + block.warp} />
					{:else}
						<line class="guide" x1={left} x2={left + block.weft} y1={top + guide.at} y2={top + guide.at} />
					{/if}
				{/each}
				<!-- Along the warp: a panel is longer than it is wide. -->
				<text
					transform="translate({left + block.weft - size * 1.7} {top + block.warp - 0.8}) rotate(-90)"
					font-size={size}>{block.title}</text
				>
				<text
					class="soft"
					transform="translate({left + block.weft - size * 0.5} {top + block.warp - 0.8}) rotate(-90)"
					font-size={size * 0.9}>{shown(block.warp)} × {shown(block.weft)}</text
				>
			{/each}
		{/each}
	</svg>
</div>

<style>
	.cloth {
		fill: var(--paper);
		stroke: var(--ink-soft);
	}
	rect,
	line {
		vector-effect: non-scaling-stroke;
	}
	.block {
		fill: color-mix(in oklab, var(--amber-soft) 55%, var(--paper));
		stroke: var(--ink);
		stroke-width: 1.4;
	}
	.tear {
		stroke: var(--ink);
		stroke-width: 2;
	}
	.selvedge {
		stroke: var(--ink-soft);
		stroke-dasharray: 2 4;
	}
	.guide {
		stroke: var(--chalk);
		stroke-width: 1.2;
		stroke-dasharray: 8 4;
	}
	text {
		fill: var(--ink);
		font-variant-numeric: tabular-nums;
	}
	.soft {
		fill: var(--ink-soft);
	}
</style>
