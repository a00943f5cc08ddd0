<!-- Marks that are typed of a piece on the table, with the guide lines that they are measured from. -->
<script lang="ts">
	import MarkShape from '../marks/MarkShape.svelte';
	import { bounds, type Marking, type Placed } from './view';

	interface Props {
		/** Where the piece lies. */
		on: Placed;
		marking: Marking;
		perPixel: number;
	}
	let { on, marking, perPixel }: Props = $props();

	/** Pixels. */
	const SIZE = 6;
	/** cm that the guide lines reach beyond the piece. */
	const BEYOND = 2;
	const box = $derived(bounds(on.piece));
	const x = $derived(marking.origin[0]);
	const y = $derived(marking.origin[1]);
</script>

<g transform="translate({on.dx} {-on.dy})" class="marking">
	<line x1={x} x2={x} y1={-box.y + BEYOND} y2={-box.y - box.height - BEYOND} />
	<line x1={box.x - BEYOND} x2={box.x + box.width + BEYOND} y1={-y} y2={-y} />
	{#each marking.marks as mark, i (i)}
		<g transform="translate({x + mark.across} {-y - mark.along})" data-marked={i}>
			<MarkShape kind={mark.kind} r={SIZE * perPixel} />
			<text x={9 * perPixel} y={-5 * perPixel} font-size={12 * perPixel}>{i + 1}</text>
		</g>
	{/each}
</g>

<style>
	.marking {
		pointer-events: none;
	}
	line {
		stroke: var(--chalk);
		stroke-width: 1.4;
		stroke-dasharray: 10 5;
		vector-effect: non-scaling-stroke;
	}
	text {
		fill: var(--pencil-3);
	}
</style>
