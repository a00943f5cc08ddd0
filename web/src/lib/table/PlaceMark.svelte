<!-- A place of the step that is worked: its line, and a mark on it that can be drawn along. -->
<script lang="ts">
	import { placeAt } from './along';
	import { linePath, type Pair } from './view';

	interface Props {
		/** What the place is, in words. */
		meaning: string;
		/** Where its line runs, on the table. */
		lines: Pair[][];
		/** How far along it the place lies, 0…1. */
		share: number;
		perPixel: number;
		onhold: (event: PointerEvent) => void;
	}
	let { meaning, lines, share, perPixel, onhold }: Props = $props();

	/** Pixels. */
	const RADIUS = 6;
	const REACH = 14;
	const at = $derived(placeAt(lines, share));
</script>

{#each lines as line, i (i)}<path class="along" d={linePath(line)} />{/each}
{#if at}
	<!-- svelte-ignore a11y_no_static_element_interactions -->
	<g class="mark" data-place={meaning} onpointerdown={onhold}>
		<title>Draw it along the line: {meaning}</title>
		<circle class="reach" cx={at[0]} cy={at[1]} r={REACH * perPixel} />
		<circle class="spot" cx={at[0]} cy={at[1]} r={RADIUS * perPixel} />
	</g>
{/if}

<style>
	.along {
		fill: none;
		stroke: var(--chalk);
		stroke-width: 1.6;
		vector-effect: non-scaling-stroke;
		pointer-events: none;
	}
	.mark {
		cursor: grab;
	}
	.reach {
		fill: transparent;
	}
	.spot {
		fill: var(--paper);
		stroke: var(--chalk);
		stroke-width: 2.4;
		vector-effect: non-scaling-stroke;
	}
	.mark:hover .spot {
		fill: var(--chalk-soft);
	}
</style>
