<!-- The table: pieces lie on it to scale, with true rules along two edges. Control points come from the core. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import type { Handle, Piece, Walk } from '../api/client';
	import { reading, shown } from '../units.svelte';
	import { lineName } from '../words';
	import { shareNear } from './along';
	import { namesOn } from './naming';
	import { fractionOn, type Subject } from './picking';
	import Markings from './Markings.svelte';
	import PieceShape from './PieceShape.svelte';
	import PlaceMark from './PlaceMark.svelte';
	import Rules from './Rules.svelte';
	import Nearness, { NEARER } from './Nearness.svelte';
	import Walking from './Walking.svelte';
	import {
		fitted,
		linePath,
		placed,
		placedAmong,
		ringPath,
		shaped,
		zoomed,
		type Layer,
		type Marking,
		type Pair,
		type Place,
		type Placed,
		type View,
	} from './view';

	interface Props {
		pieces: Piece[];
		/** Other patterns, laid under this one, each in its pencil. */
		under?: Layer[];
		/** Names of lines, darts and points to light. */
		lit?: ReadonlySet<string>;
		/** Told what line is pointed at. */
		onpoint?: (name: string | null) => void;
		/** Lines that are not drawn yet, while the draft is shown line by line. */
		hidden?: ReadonlySet<string> | null;
		/** Places at which a shape can be pulled, and told by how many units it was, while and after. */
		handles?: Handle[];
		onpull?: (symbol: string, units: number, done: boolean) => void;
		/** Places of the step that is worked, each on its line, and told how far along it one was drawn. */
		places?: Place[];
		onplace?: (name: string, share: number) => void;
		/** Told what was pointed at and chosen, with how far along it. */
		onpick?: ((subject: Subject) => void) | null;
		/** Marks that are typed of a piece. */
		marking?: Marking | null;
		/** A seam being walked, and the moment of the walk that is shown. */
		walk?: { walk: Walk; at: number } | null;
		showCutting?: boolean;
		/** Whether what lies on the table keeps its place, and the view with it, while something is tried. */
		still?: boolean;
		busy?: boolean;
		label: string;
	}
	let {
		pieces,
		under = [],
		lit = new Set<string>(),
		onpoint = () => {},
		hidden = null,
		handles = [],
		onpull = () => {},
		places = [],
		onplace = () => {},
		onpick = null,
		marking = null,
		walk = null,
		showCutting = false,
		still = false,
		busy = false,
		label,
	}: Props = $props();

	let width = $state(800);
	let height = $state(500);
	let moved = $state<View | null>(null);
	let pointed = $state<string | null>(null);
	let dragging: { at: Pair; view: View } | null = null;
	/** Pixels. A pointer that moved less between down and up has pointed, not dragged. */
	const STILL = 5;
	/** What is pulled: the handle as it was when it was taken hold of, and where that was on the table. */
	let pulled = $state<{ handle: Handle; at: Pair; units: number } | null>(null);
	/** The place that is drawn along its line. */
	let drawn = $state<string | null>(null);
	let svg: SVGSVGElement;

	const screen = $derived({ width, height });
	/** Where the pieces lay, and what was seen of them, when they began to keep still. */
	let kept = $state.raw<{ layout: Placed[]; view: View } | null>(null);
	const layout = $derived(kept ? placedAmong(kept.layout, pieces) : placed(pieces));
	const home = $derived(fitted(layout, screen));
	/** A piece that is new is shown: then what is kept is kept anew. */
	const known = $derived(kept && pieces.every((p) => kept?.layout.some((at) => at.piece.name === p.name)));
	const view = $derived(moved ? shaped(moved, screen) : kept && known ? shaped(kept.view, screen) : home);
	$effect(() => {
		if (!still) kept = null;
		else if (!known) untrack(() => (kept = { layout: [...gone(), ...layout], view: home }));
	});
	/** Where pieces lay that are gone now: a place of the step may lie on one of them. */
	function gone(): Placed[] {
		return (kept?.layout ?? []).filter((at) => !layout.some((now) => now.piece.name === at.piece.name));
	}
	const perPixel = $derived(view.width / Math.max(width, 1));
	const names = $derived(namesOn(layout, perPixel));
	const pointedEdge = $derived.by(() => {
		for (const { piece, dx, dy } of layout)
			for (const edge of piece.edges)
				if (edge.role !== 'dart_leg' && edge.lineage === pointed) return { piece, edge, dx, dy };
		return null;
	});
	const pointedLength = $derived(
		pointedEdge
			? pointedEdge.piece.edges
					.filter((e) => e.lineage === pointed && e.role !== 'dart_leg')
					.reduce((sum, e) => sum + e.length, 0)
			: 0,
	);
	const pointedDart = $derived(pieces.flatMap((piece) => piece.darts).find((dart) => dart.name === pointed));
	const pointedDiamond = $derived(
		pieces.flatMap((piece) => piece.diamonds).find((diamond) => diamond.name === pointed),
	);
	const held = $derived(
		handles.flatMap((handle) => {
			const on = layout.find((p) => p.piece.name === handle.piece);
			return on ? [{ handle, x: on.dx + handle.at[0], y: -on.dy - handle.at[1] }] : [];
		}),
	);

	/** Places with their lines as they lie on the table: on the pieces as they were, where those are gone. */
	const placesHeld = $derived(
		places.map((place) => ({
			...place,
			lines: place.line.parts.flatMap(({ piece, points }) => {
				const on = (kept?.layout ?? layout).find((p) => p.piece.name === piece);
				return on ? [points.map(([x, y]): Pair => [on.dx + x, -on.dy - y])] : [];
			}),
		})),
	);

	function point(name: string | null): void {
		pointed = name;
		onpoint(name);
	}

	function onTable(event: { clientX: number; clientY: number }): Pair {
		const box = svg.getBoundingClientRect();
		return [
			view.x + ((event.clientX - box.left) / box.width) * view.width,
			view.y + ((event.clientY - box.top) / box.height) * view.height,
		];
	}

	function wheel(event: WheelEvent): void {
		event.preventDefault();
		moved = zoomed(view, Math.exp(event.deltaY * 0.0015), onTable(event));
	}

	function grab(event: PointerEvent): void {
		if (event.button !== 0) return;
		dragging = { at: [event.clientX, event.clientY], view };
		svg.setPointerCapture(event.pointerId);
	}

	function takeHold(event: PointerEvent, handle: Handle): void {
		if (event.button !== 0) return;
		event.stopPropagation();
		pulled = { handle, at: onTable(event), units: 0 };
		svg.setPointerCapture(event.pointerId);
	}

	function pull(event: PointerEvent): void {
		if (!pulled) return;
		const [x, y] = onTable(event);
		const { outwards, moves, symbol } = pulled.handle;
		// The table's y runs down, the pattern's up.
		const along = (x - pulled.at[0]) * outwards[0] - (y - pulled.at[1]) * outwards[1];
		pulled = { ...pulled, units: along / moves };
		onpull(symbol, pulled.units, false);
	}

	function takePlace(event: PointerEvent, name: string): void {
		if (event.button !== 0) return;
		event.stopPropagation();
		drawn = name;
		svg.setPointerCapture(event.pointerId);
	}

	function drawAlong(event: PointerEvent): void {
		const place = placesHeld.find(({ name }) => name === drawn);
		if (place?.lines.length) onplace(place.name, shareNear(place.lines, onTable(event)));
	}

	/** Tell what lies under the pointer; its element says what it is. */
	function pickAt(event: PointerEvent): void {
		const under = document
			.elementsFromPoint(event.clientX, event.clientY)
			.find((element) => element.matches('[data-dart], [data-line], [data-level], [data-paper]'));
		const holder = under?.closest<SVGElement>('[data-piece]');
		const placedPiece = layout.find((p) => p.piece.name === holder?.dataset.piece);
		if (!under || !placedPiece || !onpick) return;
		const { dart, line, level } = (under as SVGElement).dataset;
		const { piece, dx, dy } = placedPiece;
		const [x, y] = onTable(event);
		const subject = { piece: piece.name, fraction: 0.5 };
		if (dart) onpick({ ...subject, kind: 'dart', name: dart });
		else if (line)
			onpick({ ...subject, kind: 'line', name: line, fraction: fractionOn(piece, line, [x - dx, -y - dy]) });
		else if (level) onpick({ ...subject, kind: 'level', name: level });
		else onpick({ ...subject, kind: 'piece', name: piece.name });
	}

	function letGo(event: PointerEvent): void {
		const held = dragging;
		if (
			onpick &&
			held &&
			event.type === 'pointerup' &&
			Math.hypot(event.clientX - held.at[0], event.clientY - held.at[1]) < STILL
		)
			pickAt(event);
		if (pulled?.units) onpull(pulled.handle.symbol, pulled.units, true);
		pulled = null;
		drawn = null;
		dragging = null;
	}

	function drag(event: PointerEvent): void {
		if (pulled) return pull(event);
		if (drawn) return drawAlong(event);
		if (!dragging) return;
		moved = {
			...dragging.view,
			x: dragging.view.x - (event.clientX - dragging.at[0]) * perPixel,
			y: dragging.view.y - (event.clientY - dragging.at[1]) * perPixel,
		};
	}

	function nearer(factor: number): void {
		moved = zoomed(view, factor, [view.x + view.width / 2, view.y + view.height / 2]);
	}

	function key(event: KeyboardEvent): void {
		const step = view.width / 12;
		if (event.key === '+' || event.key === '=') nearer(NEARER);
		else if (event.key === '-') nearer(1 / NEARER);
		else if (event.key === '0') moved = null;
		else if (event.key === 'ArrowLeft') moved = { ...view, x: view.x - step };
		else if (event.key === 'ArrowRight') moved = { ...view, x: view.x + step };
		else if (event.key === 'ArrowUp') moved = { ...view, y: view.y - step };
		else if (event.key === 'ArrowDown') moved = { ...view, y: view.y + step };
		else return;
		event.preventDefault();
	}

	$effect(() => {
		// A wheel listener must not be passive to keep the page from scrolling.
		svg.addEventListener('wheel', wheel, { passive: false });
		return () => svg.removeEventListener('wheel', wheel);
	});
</script>

<div class="surface" bind:clientWidth={width} bind:clientHeight={height} aria-busy={busy}>
	<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
	<svg
		bind:this={svg}
		viewBox="{view.x} {view.y} {view.width} {view.height}"
		role="img"
		aria-label={label}
		tabindex="0"
		onkeydown={key}
		onpointerdown={grab}
		onpointermove={drag}
		onpointerup={letGo}
		onpointercancel={letGo}
	>
		<defs>
			<!-- Dots as on marking paper: one every 5 cm, or every 2 in. -->
			<pattern
				id="dots"
				width={reading.unit === 'cm' ? 5 : 5.08}
				height={reading.unit === 'cm' ? 5 : 5.08}
				patternUnits="userSpaceOnUse"
			>
				<circle cx="0" cy="0" r={1.1 * perPixel} fill="var(--table-dot)" />
				<circle cx={reading.unit === 'cm' ? 5 : 5.08} cy="0" r={1.1 * perPixel} fill="var(--table-dot)" />
			</pattern>
		</defs>
		<rect x={view.x} y={view.y} width={view.width} height={view.height} fill="url(#dots)" />
		{#each layout as { piece, dx, dy } (piece.name)}
			<PieceShape
				{piece}
				{dx}
				{dy}
				{lit}
				{pointed}
				{perPixel}
				{showCutting}
				{hidden}
				name={names.get(piece)!}
				onpoint={point}
			/>
		{/each}
		{#each under as { pieces: others, pencil = 'var(--pencil-1)' }, n (n)}
			{#each others as piece (piece.name)}
				{@const over = layout.find((p) => p.piece.name === piece.name)}
				{#if over}
					<g transform="translate({over.dx} {-over.dy}) scale(1 -1)" class="under" style:stroke={pencil}>
						<path d={ringPath(piece.edges)} data-under={piece.name} />
						{#each piece.diamonds as diamond (diamond.name)}<path
								d={linePath(diamond.outline, true)}
							/>{/each}
					</g>
				{/if}
			{/each}
		{/each}
		{#if marking}
			{@const on = layout.find((p) => p.piece.name === marking?.piece)}
			{#if on}<Markings {on} {marking} {perPixel} />{/if}
		{/if}
		{#if walk}<Walking {layout} walk={walk.walk} at={walk.at} {perPixel} />{/if}
		{#each held as { handle, x, y } (handle.symbol)}
			<!-- svelte-ignore a11y_no_static_element_interactions -->
			<rect
				class="handle"
				data-handle={handle.symbol}
				x={x - 5 * perPixel}
				y={y - 5 * perPixel}
				width={10 * perPixel}
				height={10 * perPixel}
				transform="rotate(45 {x} {y})"
				onpointerdown={(event) => takeHold(event, handle)}
			>
				<title>Pull: {lineName(handle.symbol)}</title>
			</rect>
		{/each}
		{#each placesHeld as { name, meaning, share, lines } (name)}
			<PlaceMark {meaning} {lines} {share} {perPixel} onhold={(event) => takePlace(event, name)} />
		{/each}
		{#if showCutting}
			{#each layout as { piece, dx, dy } (piece.name)}
				<path
					class="cutting"
					transform="translate({dx} {-dy}) scale(1 -1)"
					d={linePath(piece.cutting, true)}
				/>
			{/each}
		{/if}
	</svg>
	<Rules {view} {width} {height} unit={reading.unit} />
	<Nearness all="All pieces" onnearer={nearer} onall={() => (moved = null)} />
	{#if pointedEdge || pointedDart || pointedDiamond}
		<p class="reading figures" aria-live="polite">
			{#if pointedDart}
				{lineName(pointedDart.name)}: mouth {shown(pointedDart.mouth)}, {pointedDart.angle.toFixed(1)}°
			{:else if pointedDiamond}
				{lineName(pointedDiamond.name)}: takes in {shown(pointedDiamond.intake)}
			{:else}
				{lineName(pointed ?? '')}: {shown(pointedLength)}
			{/if}
		</p>
	{/if}
</div>

<style>
	svg {
		touch-action: none;
		cursor: grab;
	}
	svg:focus-visible {
		outline-offset: -3px;
	}
	.under path {
		fill: none;
		stroke-width: 1.6;
		stroke-dasharray: 7 4;
		vector-effect: non-scaling-stroke;
		pointer-events: none;
	}
	.handle {
		fill: var(--paper);
		stroke: var(--chalk);
		stroke-width: 2;
		vector-effect: non-scaling-stroke;
		cursor: grab;
	}
	.handle:hover {
		fill: var(--chalk-soft);
	}
	.cutting {
		fill: none;
		stroke: var(--ink);
		stroke-width: 1.6;
		vector-effect: non-scaling-stroke;
		pointer-events: none;
	}
	.reading {
		position: absolute;
		left: 2.4rem;
		bottom: 0.6rem;
		margin: 0;
		padding: 0.2rem 0.6rem;
		background: var(--paper);
		border: 1px solid var(--rule);
		border-radius: var(--radius-base);
	}
</style>
