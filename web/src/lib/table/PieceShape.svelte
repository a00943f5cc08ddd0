<!-- One piece on the table: paper, lines that can be pointed at, darts, marks, grain, name. -->
<script lang="ts">
	import type { Piece } from '../api/client';
	import { bare } from '../desk/names.svelte';
	import type { Name } from './naming';
	import { curvePath, linePath, ringPath } from './view';

	/** Pixels. The second line of a name is smaller, but no smaller than can be read. */
	const SMALLEST = 11;

	interface Props {
		piece: Piece;
		dx: number;
		dy: number;
		lit: ReadonlySet<string>;
		pointed: string | null;
		perPixel: number;
		showCutting: boolean;
		/** Lines and darts that are not drawn yet, while the draft is shown line by line. */
		hidden: ReadonlySet<string> | null;
		/** Where its name stands. */
		name: Name;
		onpoint: (name: string | null) => void;
	}
	let { piece, dx, dy, lit, pointed, perPixel, showCutting, hidden, name, onpoint }: Props = $props();

	const part = $derived(piece.part);
	const edges = $derived(
		piece.edges.filter((edge) => edge.role !== 'dart_leg' && !hidden?.has(edge.lineage)),
	);
	const darts = $derived(piece.darts.filter((dart) => !hidden?.has(dart.name)));
	const diamonds = $derived(piece.diamonds.filter((diamond) => !hidden?.has(diamond.name)));
	/** A piece appears with its first line, its notches with the last. */
	const begun = $derived(edges.length > 0);
	const finished = $derived(!hidden || piece.edges.every((edge) => !hidden.has(edge.lineage)));
	function isLit(name: string): boolean {
		return lit.has(name) || lit.has(bare(name)) || pointed === name;
	}
</script>

<g data-piece={piece.name}>
	<g transform="translate({dx} {-dy}) scale(1 -1)">
		{#if !hidden}
			<path
				class="paper"
				data-paper={piece.name}
				d={showCutting && piece.cutting.length ? linePath(piece.cutting, true) : ringPath(piece.edges)}
			/>
		{/if}
		{#each begun ? piece.lines : [] as line, i (i)}
			<path
				class="level"
				class:place={line.place}
				class:lit={lit.has(`${part}.${line.level}`)}
				d={linePath(line.points)}
			/>
			{#if line.around}<path class="reach" d={linePath(line.points)} data-level={line.level} />{/if}
		{/each}
		{#if begun}<path class="grain" d={linePath(piece.grain)} />{/if}
		{#each darts as dart (dart.name)}
			<!-- svelte-ignore a11y_no_static_element_interactions -->
			<path
				class="dart"
				class:folded={!dart.sewn}
				class:lit={isLit(dart.name)}
				d={linePath([...dart.legs, dart.cap[1] ?? dart.legs[0]!], true)}
				data-dart={dart.name}
				onpointerenter={() => onpoint(dart.name)}
				onpointerleave={() => onpoint(null)}
			/>
		{/each}
		{#each diamonds as diamond (diamond.name)}
			<!-- svelte-ignore a11y_no_static_element_interactions -->
			<path
				class="dart"
				class:lit={isLit(diamond.name)}
				d={linePath(diamond.outline, true)}
				data-dart={diamond.name}
				onpointerenter={() => onpoint(diamond.name)}
				onpointerleave={() => onpoint(null)}
			/>
		{/each}
		{#each edges as edge, i (i)}
			<path
				class="line"
				class:fold={edge.lineage === piece.on_fold}
				class:lit={isLit(edge.lineage)}
				d={curvePath(edge.curve)}
			/>
			<!-- svelte-ignore a11y_no_static_element_interactions -->
			<path
				class="reach"
				d={curvePath(edge.curve)}
				data-line={edge.lineage}
				onpointerenter={() => onpoint(edge.lineage)}
				onpointerleave={() => onpoint(null)}
			/>
			{#if lit.has(edge.start)}
				<circle class="spot" cx={edge.curve[0]![0]} cy={edge.curve[0]![1]} r={5 * perPixel} />
			{/if}
		{/each}
		{#each finished ? piece.notches : [] as notch, i (i)}
			<path class="line" d={linePath(notch)} />
		{/each}
		{#each begun ? Object.entries(piece.marks) : [] as [name, at] (name)}
			<g class="mark" class:lit={lit.has(`${part}.${name}`)}>
				<path
					d="M{at[0] - 6 * perPixel} {at[1]}h{12 * perPixel}M{at[0]} {at[1] - 6 * perPixel}v{12 * perPixel}"
				/>
				{#if lit.has(`${part}.${name}`)}<circle cx={at[0]} cy={at[1]} r={9 * perPixel} />{/if}
			</g>
		{/each}
	</g>
	{#if begun}
		{#if name.leader}
			{@const [from, to] = name.leader}
			<path class="leader" d="M{dx + from[0]} {-dy - from[1]}L{dx + to[0]} {-dy - to[1]}" />
		{/if}
		{#each name.words as line, i (i)}
			<text
				class:small={i === name.words.length - 1}
				x={dx + name.at[0]}
				y={-dy - name.at[1] + (0.9 + 1.2 * i) * name.size * perPixel}
				font-size={Math.max((i === name.words.length - 1 ? 0.85 : 1) * name.size, SMALLEST) * perPixel}
			>
				{line}
			</text>
		{/each}
	{/if}
</g>

<style>
	.paper {
		fill: var(--paper);
	}
	path {
		vector-effect: non-scaling-stroke;
	}
	.line,
	.level,
	.grain,
	.mark path,
	.mark circle,
	.spot {
		fill: none;
		stroke: var(--ink);
		stroke-width: 1.4;
		pointer-events: none;
		vector-effect: non-scaling-stroke;
	}
	.fold {
		stroke-dasharray: 14 3 3 3;
	}
	.level {
		stroke: var(--ink-soft);
		stroke-width: 0.8;
		stroke-dasharray: 2 4;
	}
	.place {
		stroke: var(--ink);
		stroke-width: 1.2;
		stroke-dasharray: none;
	}
	.leader {
		stroke: var(--ink-soft);
		stroke-width: 0.8;
		pointer-events: none;
	}
	.grain {
		stroke: var(--ink-soft);
		stroke-width: 0.8;
	}
	.dart {
		fill: var(--paper);
		stroke: var(--ink);
		stroke-width: 1.1;
	}
	.reach {
		fill: none;
		stroke: transparent;
		stroke-width: 16;
		cursor: pointer;
	}
	.lit,
	.mark.lit path,
	.mark.lit circle,
	.spot {
		stroke: var(--chalk);
		stroke-width: 3.2;
	}
	/* A pleat: its fold lines are marked, it has no legs. */
	.folded {
		stroke: none;
	}
	.dart.lit {
		fill: var(--chalk-soft);
	}
	text {
		fill: var(--ink);
		font-family: 'Literata Variable', serif;
		pointer-events: none;
		user-select: none;
	}
	text.small {
		fill: var(--ink-soft);
		font-family: 'Commissioner Variable', sans-serif;
	}
</style>
