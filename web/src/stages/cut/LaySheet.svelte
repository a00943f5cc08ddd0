<!-- A lay plan on the table: the cloth as it lies, its length from left to right; pieces are taken in hand and moved. -->
<script lang="ts">
	import type { Laid } from '../../lib/api/client';
	import { reading, shown } from '../../lib/units.svelte';
	import { nudge } from '../drape/given';
	import type { By } from './laying.svelte';

	interface Props {
		laid: Laid;
		current: number | null;
		onpick: (piece: number) => void;
		onmove: (by: By) => void;
	}
	let { laid, current, onpick, onmove }: Props = $props();

	let width = $state(800);
	let height = $state(500);
	/** Where the piece in hand was taken, and where it is held now: along and across, cm. */
	let held = $state<{ from: [number, number]; to: [number, number]; pointer: number } | null>(null);
	let drawing = $state<SVGSVGElement>();

	/** cm. Space around the cloth, the rule beneath it, letters. */
	const ROUND = 6;
	const RULE = 10;
	/** Pixels. */
	const LETTERS = 13;

	const plan = $derived(laid.plan);
	const long = $derived(Math.max(1, ...plan.sections.map((s) => s.start + s.length)));
	const wide = $derived(Math.max(1, ...plan.sections.map((s) => s.width)));
	const box = $derived({ x: -ROUND, y: -ROUND, width: long + 2 * ROUND, height: wide + 2 * ROUND + RULE });
	const perPixel = $derived(Math.max(box.width / Math.max(width, 1), box.height / Math.max(height, 1)));
	const odd = $derived(new Set(laid.faults.flatMap((fault) => fault.placed)));
	const step = $derived(long > 300 ? 50 : long > 120 ? 20 : 10);
	const inch = $derived(reading.unit === 'in' ? 2.54 : 1);
	const ticks = $derived(
		Array.from({ length: Math.floor(long / (step * inch)) + 1 }, (_, i) => i * step * inch),
	);

	function path(outline: readonly (readonly number[])[]): string {
		return `M${outline.map(([across, along]) => `${along} ${across}`).join('L')}Z`;
	}

	/** Where the weight of a piece lies: its words stand there. */
	function middle(outline: readonly (readonly number[])[]): [number, number] {
		let area = 0;
		let along = 0;
		let across = 0;
		outline.forEach(([across0 = 0, along0 = 0], i) => {
			const [across1 = 0, along1 = 0] = outline[(i + 1) % outline.length]!;
			const part = along0 * across1 - along1 * across0;
			area += part;
			along += (along0 + along1) * part;
			across += (across0 + across1) * part;
		});
		return [along / (3 * area), across / (3 * area)];
	}

	function spot(event: PointerEvent): [number, number] {
		const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(drawing!.getScreenCTM()!.inverse());
		return [at.x, at.y];
	}

	function take(event: PointerEvent, piece: number): void {
		onpick(piece);
		const from = spot(event);
		held = { from, to: from, pointer: event.pointerId };
		drawing?.setPointerCapture(event.pointerId);
		drawing?.focus();
	}

	function drag(event: PointerEvent): void {
		if (held?.pointer === event.pointerId) held = { ...held, to: spot(event) };
	}

	function put(event: PointerEvent): void {
		if (held?.pointer !== event.pointerId) return;
		const [along, across] = [held.to[0] - held.from[0], held.to[1] - held.from[1]];
		held = null;
		if (Math.hypot(along, across) > 3 * perPixel) onmove({ along, across });
	}

	const carried = $derived(held ? [held.to[0] - held.from[0], held.to[1] - held.from[1]] : [0, 0]);

	function key(event: KeyboardEvent): void {
		if (event.altKey || event.ctrlKey || event.metaKey) return;
		const count = plan.placed.length;
		if ((event.key === 'n' || event.key === 'p') && count) {
			event.preventDefault();
			onpick(((current ?? (event.key === 'n' ? -1 : 0)) + (event.key === 'n' ? 1 : count - 1)) % count);
			return;
		}
		if (current === null) return;
		const piece = plan.placed[current];
		const by = nudge(event.key, event.shiftKey, reading.unit);
		if (by) onmove({ along: by.across, across: -by.along, snap: false });
		else if (event.key === 't' && piece) onmove({ turn: (piece.turn + 180) % 360 });
		else if (event.key === 'o' && piece) onmove({ flipped: !piece.flipped });
		else return;
		event.preventDefault();
	}
</script>

<div class="surface" bind:clientWidth={width} bind:clientHeight={height}>
	<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
	<svg
		bind:this={drawing}
		viewBox="{box.x} {box.y} {box.width} {box.height}"
		role="application"
		aria-label="The lay plan. N and P take a piece in hand, arrows move it, T turns it, O turns it over."
		tabindex="0"
		onkeydown={key}
		onpointermove={drag}
		onpointerup={put}
		onpointercancel={() => (held = null)}
	>
		{#each plan.sections as section, i (i)}
			<rect class="cloth" x={section.start} y="0" width={section.length} height={section.width} />
			{#each section.strips as [left, right], j (j)}
				{#each [left, right] as edge (edge)}
					{#if !section.folds.includes(edge) && edge > 0 && edge < section.width}
						<line
							class="selvedge"
							x1={section.start}
							x2={section.start + section.length}
							y1={edge}
							y2={edge}
						/>
					{/if}
				{/each}
			{/each}
			{#each section.folds as fold (fold)}
				{@const y = fold > 0 ? fold + 5 * perPixel : -5 * perPixel}
				<line class="fold" x1={section.start} x2={section.start + section.length} y1={y} y2={y} />
				<text
					class="word"
					x={section.start + 4 * perPixel}
					y={fold > 0 ? y + 14 * perPixel : y - 4 * perPixel}
					font-size={LETTERS * perPixel}>fold</text
				>
			{/each}
		{/each}
		{#each plan.placed as piece, i (i)}
			{@const [x, y] = middle(piece.outline)}
			<g
				class="piece"
				class:current={current === i}
				class:odd={odd.has(i)}
				data-placed={i}
				role="presentation"
				transform={current === i && held ? `translate(${carried[0]} ${carried[1]})` : undefined}
				onpointerdown={(event) => take(event, i)}
			>
				<path d={path(piece.outline)} />
				<text {x} {y} font-size={LETTERS * perPixel}>{piece.title}</text>
				<text class="how" {x} y={y + 15 * perPixel} font-size={(LETTERS - 1) * perPixel}>
					{piece.on_fold ? 'on the fold' : piece.layers > 1 ? `${piece.layers} layers` : ''}{piece.flipped &&
					piece.layers === 1
						? 'turned over'
						: ''}
				</text>
			</g>
		{/each}
		<g class="rule" transform="translate(0 {wide + ROUND / 2})">
			{#each ticks as at (at)}
				<line x1={at} x2={at} y1="0" y2={6 * perPixel} />
				{#if long - at > 60 * perPixel}
					<text x={at} y={18 * perPixel} font-size={11 * perPixel}>{Math.round(at / inch)}</text>
				{/if}
			{/each}
			<text class="unit" x={long} y={18 * perPixel} font-size={11 * perPixel}>{shown(long)}</text>
		</g>
	</svg>
</div>

<style>
	.surface {
		position: absolute;
		inset: 0;
		background: var(--table);
	}
	svg {
		width: 100%;
		height: 100%;
		touch-action: none;
	}
	.cloth {
		fill: oklch(0.95 0.025 80);
		stroke: var(--ink-soft);
		stroke-width: 1;
		vector-effect: non-scaling-stroke;
	}
	:global([data-mode='dark']) .cloth {
		fill: oklch(0.36 0.02 80);
	}
	line,
	path {
		vector-effect: non-scaling-stroke;
	}
	.selvedge {
		stroke: var(--ink-soft);
		stroke-dasharray: 2 3;
	}
	.fold {
		stroke: var(--ink);
		stroke-width: 2;
		stroke-dasharray: 10 4 2 4;
	}
	.piece {
		cursor: grab;
	}
	.piece path {
		fill: var(--paper);
		stroke: var(--ink);
		stroke-width: 1.4;
	}
	.piece.current path {
		fill: var(--chalk-soft);
		stroke: var(--chalk);
		stroke-width: 2.5;
	}
	.piece.odd path {
		stroke: var(--wax);
		stroke-width: 2.5;
		stroke-dasharray: 6 3;
	}
	text {
		fill: var(--ink);
		text-anchor: middle;
		pointer-events: none;
	}
	.word {
		text-anchor: start;
		fill: var(--ink-soft);
	}
	.how {
		fill: var(--ink-soft);
	}
	.rule line {
		stroke: var(--ink-soft);
	}
	.rule text {
		fill: var(--ink-soft);
	}
	.rule .unit {
		font-weight: 600;
		text-anchor: end;
	}
</style>
