<!-- A picture that is being traced: the places that tell its scale, and the tap on the piece, are clicked on it. -->
<script lang="ts">
	import type { TakenPlace } from '../../lib/api/client';
	import type { Capture } from './capture.svelte';
	import type { Pixel } from './taken.svelte';
	import MarkShape from '../../lib/marks/MarkShape.svelte';
	import Nearness, { NEARER } from '../../lib/table/Nearness.svelte';
	import { zoomed, type View } from '../../lib/table/view';
	import { middleOf } from './given';
	import { TAKES } from './taken.svelte';

	interface Props {
		capture: Capture;
	}
	let { capture }: Props = $props();

	let svg = $state<SVGSVGElement>();
	/** The place that the arrow keys move and Enter takes, in shares of the picture. */
	let pointer = $state<[number, number]>([0.5, 0.5]);
	let keyed = $state(false);
	/** The part of the picture that is shown, where it is not all of it. */
	let moved = $state.raw<View | null>(null);
	const view = $derived(moved ?? { x: 0, y: 0, width: capture.width, height: capture.height });
	/** How many times nearer than the whole picture it is looked at, at most. */
	const NEAREST = 20;
	/** Marks are as large on the screen however near they are. */
	const r = $derived(Math.max(view.width, view.height) / 110);
	/** The picture under the hand, and whether it was moved by it. */
	let panned = $state.raw<{ from: Pixel; view: View; still: boolean } | null>(null);

	/** What is being dragged, and where it is now. */
	let dragged = $state.raw<{ i: number; at: Pixel; from: Pixel } | null>(null);
	/** Pixels of the screen: a shorter drag is a click on what is there. */
	const SLIPS = 4;
	/** cm by which an arrow key moves what is taken, and with Shift. */
	const MOVES = { plain: 0.1, fine: 0.02 };

	function spotOf(event: MouseEvent): Pixel | null {
		const at = svg?.getScreenCTM()?.inverse();
		if (!at) return null;
		const spot = new DOMPoint(event.clientX, event.clientY).matrixTransform(at);
		return [spot.x, spot.y];
	}

	function perPixel(): number {
		return 1 / (svg?.getScreenCTM()?.a ?? 1);
	}

	function nearer(factor: number, about?: Pixel): void {
		const limits: Pixel = [capture.width / NEAREST, capture.width];
		const next = zoomed(view, factor, about ?? [view.x + view.width / 2, view.y + view.height / 2], limits);
		moved = next.width >= capture.width ? null : next;
	}

	$effect(() => {
		const on = svg;
		if (!on) return;
		const wheel = (event: WheelEvent): void => {
			event.preventDefault();
			nearer(Math.exp(event.deltaY * 0.0015), spotOf(event) ?? undefined);
		};
		// A wheel listener must not be passive to keep the page from scrolling.
		on.addEventListener('wheel', wheel, { passive: false });
		return () => on.removeEventListener('wheel', wheel);
	});

	function pan(event: PointerEvent): void {
		if (event.buttons === 0) panned = null;
		if (!panned || !moved) return;
		const [dx, dy] = [event.clientX - panned.from[0], event.clientY - panned.from[1]];
		if (panned.still && Math.hypot(dx, dy) < SLIPS) return;
		panned = { ...panned, still: false };
		moved = { ...panned.view, x: panned.view.x - dx * perPixel(), y: panned.view.y - dy * perPixel() };
	}

	function clicked(event: MouseEvent): void {
		const held = panned;
		panned = null;
		const spot = spotOf(event);
		if (!spot || held?.still === false) return;
		keyed = false;
		capture.click([Math.round(spot[0]), Math.round(spot[1])]);
	}

	function grabbed(event: PointerEvent, i: number): void {
		if (capture.tool === 'tape') return;
		const at = spotOf(event);
		if (!at) return;
		event.stopPropagation();
		(event.currentTarget as Element).setPointerCapture(event.pointerId);
		capture.taken.current = i;
		dragged = { i, at, from: at };
	}

	function dragging(event: PointerEvent): void {
		const at = dragged && spotOf(event);
		if (dragged && at) dragged = { ...dragged, at };
	}

	function dropped(): void {
		if (!dragged) return;
		const { i, at, from } = dragged;
		const to = shownAt(capture.taken.all[i]!, i);
		dragged = null;
		if (Math.hypot(at[0] - from[0], at[1] - from[1]) > SLIPS * perPixel()) capture.taken.move(i, to);
	}

	/** Where what is taken is shown: under the hand while it is dragged. */
	function shownAt(one: TakenPlace, i: number): Pixel {
		const by = dragged?.i === i ? [dragged.at[0] - dragged.from[0], dragged.at[1] - dragged.from[1]] : [0, 0];
		return [one.at[0]! + by[0]!, one.at[1]! + by[1]!];
	}

	function takenKey(event: KeyboardEvent, i: number): void {
		const step = STEPS[event.key];
		if (step) {
			const by = (event.shiftKey ? MOVES.fine : MOVES.plain) * (capture.found?.px_per_cm ?? 1);
			const [x, y] = capture.taken.all[i]!.at;
			capture.taken.move(i, [x! + step[0] * by, y! + step[1] * by]);
		} else if (event.key === 'Delete' || event.key === 'Backspace') {
			capture.taken.drop(i);
			svg?.focus();
		} else return;
		event.preventDefault();
		event.stopPropagation();
	}

	const STEPS: Record<string, [number, number]> = {
		ArrowLeft: [-1, 0],
		ArrowRight: [1, 0],
		ArrowUp: [0, -1],
		ArrowDown: [0, 1],
	};

	function pixelOf([x, y]: Pixel): Pixel {
		return [Math.round(x * capture.width), Math.round(y * capture.height)];
	}

	function key(event: KeyboardEvent): void {
		const step = STEPS[event.key];
		if (step) {
			event.preventDefault();
			keyed = true;
			// The nearer it is looked at, the finer the pointer goes.
			const by = ((event.shiftKey ? 0.002 : 0.02) * view.width) / capture.width;
			const to = pointer.map((at, i) => Math.min(Math.max(at + step[i]! * by, 0), 1));
			pointer = [to[0]!, to[1]!];
			return;
		}
		if (event.key === '+' || event.key === '=') return nearer(NEARER, pixelOf(pointer));
		if (event.key === '-') return nearer(1 / NEARER, pixelOf(pointer));
		if (event.key === '0') {
			moved = null;
			return;
		}
		const at = pixelOf(pointer);
		const takes = TAKES.find((one) => one.key === event.key.toLowerCase());
		if (event.key === 'Enter' || event.key === ' ') capture.click(at);
		else if (takes && capture.found && !event.ctrlKey && !event.metaKey) capture.taken.take(takes.kind, at);
		else return;
		event.preventDefault();
	}
</script>

<div class="surface">
	<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
	<svg
		bind:this={svg}
		viewBox="{view.x} {view.y} {view.width} {view.height}"
		role="group"
		aria-label="The picture. {capture.asked} Arrow keys move a pointer, with Shift finely; Enter takes the place; + and − bring it nearer."
		tabindex="0"
		onclick={clicked}
		onkeydown={key}
		onpointerdown={(event) => {
			if (event.button === 0) panned = { from: [event.clientX, event.clientY], view, still: true };
		}}
		onpointermove={pan}
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
		{#if capture.found}
			{#each capture.taken.all as one, i (i)}
				{@const [x, y] = shownAt(one, i)}
				<g
					class="taken"
					class:current={capture.taken.current === i}
					transform="translate({x} {y})"
					role="button"
					tabindex="0"
					aria-label="{one.kind}, {i + 1} of {capture.taken.all.length}: arrow keys move it, Delete drops it"
					data-taken={one.kind}
					onfocus={() => (capture.taken.current = i)}
					onkeydown={(event) => takenKey(event, i)}
					onclick={(event) => {
						if (capture.tool !== 'tape') event.stopPropagation();
					}}
					onpointerdown={(event) => grabbed(event, i)}
					onpointermove={dragging}
					onpointerup={dropped}
					onpointercancel={() => (dragged = null)}
				>
					{#if one.kind === 'corner'}
						<rect x={-0.6 * r} y={-0.6 * r} width={1.2 * r} height={1.2 * r} />
					{:else if one.kind === 'notch'}
						<path d="M0 {-0.8 * r}L{0.7 * r} {0.5 * r}H{-0.7 * r}Z" />
					{:else}
						<MarkShape kind={one.kind} r={0.7 * r} />
					{/if}
					<circle class="near" r={1.4 * r} />
				</g>
			{/each}
			{#if capture.tape.length}
				<path class="tape" d="M{capture.tape.map((at) => at.join(' ')).join('L')}" />
				{#each capture.tape as [x, y], i (i)}
					<path class="tape" transform="translate({x} {y})" d="M0 {-r}V{r}M{-r} 0H{r}" />
				{/each}
			{/if}
		{/if}
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
	<Nearness all="The whole picture" onnearer={nearer} onall={() => (moved = null)} />
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
	.taken {
		cursor: grab;
		touch-action: none;
	}
	.taken rect,
	.taken path {
		fill: var(--paper);
		fill-opacity: 0.6;
		stroke: var(--chalk);
		stroke-width: 2;
		vector-effect: non-scaling-stroke;
	}
	.taken .near {
		stroke: none;
		fill: transparent;
	}
	.taken.current .near,
	.taken:focus-visible .near {
		stroke: var(--wax);
		stroke-width: 2;
	}
	.taken:focus {
		outline: none;
	}
	.tape {
		stroke: var(--wax);
		stroke-dasharray: 8 5;
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
