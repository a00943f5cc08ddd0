<!-- A picture that is being traced: the places that tell its scale, and the tap on the piece, are clicked on it. -->
<script lang="ts">
	import type { Capture } from './capture.svelte';
	import { middleOf } from './given';

	interface Props {
		capture: Capture;
	}
	let { capture }: Props = $props();

	let svg = $state<SVGSVGElement>();
	/** The place that the arrow keys move and Enter takes, in shares of the picture. */
	let pointer = $state<[number, number]>([0.5, 0.5]);
	let keyed = $state(false);
	const r = $derived(Math.max(capture.width, capture.height) / 110);

	function clicked(event: MouseEvent): void {
		const at = svg?.getScreenCTM()?.inverse();
		if (!at) return;
		const spot = new DOMPoint(event.clientX, event.clientY).matrixTransform(at);
		keyed = false;
		capture.click([Math.round(spot.x), Math.round(spot.y)]);
	}

	const STEPS: Record<string, [number, number]> = {
		ArrowLeft: [-1, 0],
		ArrowRight: [1, 0],
		ArrowUp: [0, -1],
		ArrowDown: [0, 1],
	};

	function key(event: KeyboardEvent): void {
		const step = STEPS[event.key];
		if (step) {
			event.preventDefault();
			keyed = true;
			const by = event.shiftKey ? 0.002 : 0.02;
			const moved = pointer.map((at, i) => Math.min(Math.max(at + step[i]! * by, 0), 1));
			pointer = [moved[0]!, moved[1]!];
		} else if (event.key === 'Enter' || event.key === ' ') {
			event.preventDefault();
			capture.click([Math.round(pointer[0] * capture.width), Math.round(pointer[1] * capture.height)]);
		}
	}
</script>

<div class="surface">
	<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
	<svg
		bind:this={svg}
		viewBox="0 0 {capture.width} {capture.height}"
		role="img"
		aria-label="The picture. {capture.asked} Arrow keys move a pointer, with Shift finely; Enter takes the place."
		tabindex="0"
		onclick={clicked}
		onkeydown={key}
	>
		<image href={capture.shown} width={capture.width} height={capture.height} />
		{#if capture.spots.length > 1}
			<path
				class="known"
				d="M{capture.spots.map(([x, y]) => `${x} ${y}`).join('L')}{capture.spots.length === 4 ? 'Z' : ''}"
			/>
		{/if}
		{#each capture.spots as [x, y], i (i)}
			<g class="spot" transform="translate({x} {y})" data-spot={i}>
				<path d="M{-r} 0H{r}M0 {-r}V{r}" />
				<text x={r} y={-r} font-size={2 * r}>{i + 1}</text>
			</g>
		{/each}
		{#each capture.found?.lines ?? [] as line, i (i)}
			<path
				class="line"
				class:ragged={line.ragged}
				d="M{line.seen.map((at) => at.join(' ')).join('L')}"
				data-line={i}
			/>
			{@const [x, y] = middleOf(line.seen)}
			<text class="name" x={x + r} {y} font-size={2 * r}>{line.name.replaceAll('_', ' ')}</text>
		{/each}
		{#each capture.found?.ghosts ?? [] as ghost, i (i)}
			<circle class="ghost" cx={ghost.seen[0]} cy={ghost.seen[1]} {r}><title>{ghost.kind}</title></circle>
		{/each}
		{#if capture.tap && !capture.found}
			<circle class="tap" cx={capture.tap[0]} cy={capture.tap[1]} {r} data-tap />
		{/if}
		{#if keyed}
			<path
				class="pointer"
				transform="translate({pointer[0] * capture.width} {pointer[1] * capture.height})"
				d="M{-1.6 * r} 0H{1.6 * r}M0 {-1.6 * r}V{1.6 * r}"
			/>
		{/if}
	</svg>
	{#if capture.asked}<p class="asked" role="status">{capture.asked}</p>{/if}
</div>

<style>
	svg {
		cursor: crosshair;
	}
	path,
	circle {
		vector-effect: non-scaling-stroke;
		fill: none;
		stroke: var(--wax);
		stroke-width: 2.5;
	}
	.line {
		stroke: var(--chalk);
		stroke-width: 2;
	}
	.ghost {
		stroke: var(--chalk);
		stroke-width: 1.4;
		stroke-dasharray: 3 3;
	}
	text.name {
		fill: var(--chalk);
		paint-order: stroke;
		stroke: var(--paper);
		stroke-width: 4px;
		vector-effect: non-scaling-stroke;
	}
	.line.ragged {
		stroke: var(--wax);
	}
	.known {
		stroke-dasharray: 8 5;
	}
	.pointer {
		stroke: var(--chalk);
	}
	text {
		fill: var(--wax);
		font-weight: 600;
	}
	.asked {
		position: absolute;
		left: 1rem;
		bottom: 1rem;
		margin: 0;
		padding: 0.4rem 0.8rem;
		background: var(--paper);
		border: 1px solid var(--rule);
	}
</style>
