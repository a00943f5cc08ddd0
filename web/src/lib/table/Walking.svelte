<!-- A seam being walked: the second piece laid to the first at the place reached, and where their shapes part. -->
<script lang="ts">
	import type { Walk } from '../api/client';
	import { curvePath, type Placed } from './view';

	interface Props {
		layout: Placed[];
		walk: Walk;
		at: number;
		perPixel: number;
	}
	let { layout, walk, at, perPixel }: Props = $props();

	const step = $derived(walk.steps[at]);
	const first = $derived(layout.find((p) => p.piece.name === step?.first));
	const second = $derived(layout.find((p) => p.piece.name === step?.second));
	/** The rigid move of the second piece's frame onto the first's, as the core found it. */
	const laid = $derived(
		step
			? `translate(${step.shifted[0]} ${step.shifted[1]}) rotate(${(step.turned * 180) / Math.PI})${
					step.over ? ' scale(-1 1)' : ''
				}`
			: '',
	);
	/** Moments so far at which the edges part by more than a pencil's line. */
	const PARTED = 0.05;
	const parted = $derived(
		walk.steps.slice(0, at + 1).filter((s) => s.gap > PARTED && s.first === step?.first),
	);
</script>

{#if step && first && second}
	<g transform="translate({first.dx} {-first.dy}) scale(1 -1)" data-walk={walk.seam}>
		<g transform={laid}>
			{#each second.piece.edges as edge, i (i)}
				<path class="laid" class:leg={edge.role === 'dart_leg'} d={curvePath(edge.curve)} />
			{/each}
		</g>
		{#each parted as s, i (i)}
			<circle class="parts" cx={s.at[0]} cy={s.at[1]} r={Math.min(0.4 + s.gap * 2, 3)} />
		{/each}
		<circle class="here" cx={step.at[0]} cy={step.at[1]} r={6 * perPixel} />
	</g>
{/if}

<style>
	path,
	circle {
		fill: none;
		vector-effect: non-scaling-stroke;
		pointer-events: none;
	}
	.laid {
		stroke: var(--pencil-3);
		stroke-width: 1.8;
		stroke-dasharray: 7 3;
	}
	.laid.leg {
		stroke-width: 0.8;
	}
	.parts {
		stroke: var(--wax);
		stroke-width: 1.4;
	}
	.here {
		fill: var(--pencil-3);
	}
</style>
