<!-- A panel laid flat: its two guide lines, the marks as they were measured from them, the lines drawn through them. -->
<script lang="ts">
	import type { GivenPanel, Panel, UnderPanel } from '../../lib/api/client';
	import MarkShape from '../../lib/marks/MarkShape.svelte';
	import { reading, shown } from '../../lib/units.svelte';
	import { curvePath, middleOf, nudge } from './given';

	interface Props {
		panel: Panel;
		/** What the core made of it. */
		found: GivenPanel | undefined;
		/** The mark that is being typed or moved. */
		current: number | null;
		/** How high body levels lie over the level guide, cm. */
		levels: Record<string, number>;
		/** The picture that it was traced from. */
		under: UnderPanel | undefined;
		onpick: (mark: number) => void;
		/** Told by how much the current mark is moved, cm. */
		onmove: (by: { across: number; along: number }) => void;
	}
	let { panel, found, current, levels, under, onpick, onmove }: Props = $props();

	let width = $state(700);
	let height = $state(500);

	/** cm. What a panel without marks shows. */
	const EMPTY = { left: -5, right: 25, low: -25, high: 15 };
	/** cm. Space around the marks. */
	const ROUND = 4;
	const box = $derived.by(() => {
		const xs = [0, ...panel.marks.map((mark) => mark.across)];
		const ys = [0, ...panel.marks.map((mark) => mark.along)];
		if (panel.marks.length < 2) return EMPTY;
		return {
			left: Math.min(...xs) - ROUND,
			right: Math.max(...xs) + ROUND,
			low: Math.min(...ys) - ROUND,
			high: Math.max(...ys) + ROUND,
		};
	});
	const perPixel = $derived(
		Math.max((box.right - box.left) / Math.max(width, 1), (box.high - box.low) / Math.max(height, 1)),
	);
	const view = $derived.by(() => {
		const wide = width * perPixel;
		const tall = height * perPixel;
		return {
			x: (box.left + box.right) / 2 - wide / 2,
			y: -(box.low + box.high) / 2 - tall / 2,
			width: wide,
			height: tall,
		};
	});
	const odd = $derived(new Set((found?.queries ?? []).flatMap((query) => query.marks)));
	/** Lines as far as they are typed, while the panel does not close yet. */
	const soFar = $derived(
		found?.drawn
			? ''
			: panel.marks
					.filter((mark) => mark.lines.length || mark.kind === 'dash' || mark.kind === 'cross')
					.map((mark, i) => `${i ? 'L' : 'M'}${mark.across} ${mark.along}`)
					.join(''),
	);
	const names = $derived(
		(found?.lines ?? []).map((line) => {
			const [x, y] = middleOf(line.points);
			return { key: line.lineage + line.start, name: line.name.replaceAll('_', ' '), x, y };
		}),
	);
	const upright = $derived(
		panel.marks.some((mark) => mark.lines.some((line) => line.startsWith('centre')))
			? 'centre line'
			: 'balance line',
	);
	/** Pixels. */
	const SIZE = 6;
	const r = $derived(SIZE * perPixel);

	function key(event: KeyboardEvent): void {
		if (event.altKey || event.ctrlKey || event.metaKey || current === null) return;
		const by = nudge(event.key, event.shiftKey, reading.unit);
		if (!by) return;
		event.preventDefault();
		onmove(by);
	}
</script>

<div class="surface" bind:clientWidth={width} bind:clientHeight={height}>
	<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
	<svg
		viewBox="{view.x} {view.y} {view.width} {view.height}"
		role="img"
		aria-label="The {panel.title.toLowerCase() || 'panel'} with its marks"
		tabindex="0"
		onkeydown={key}
	>
		{#if under}
			{@const { left, top, px_per_cm, turn, across, along } = under.lies}
			<!-- Both turns are of a frame whose y goes down here. -->
			<image
				class="under"
				href="/api/photos/{under.uid}"
				width={under.width / px_per_cm}
				height={under.height / px_per_cm}
				transform="translate({across} {-along}) rotate({(-turn * 180) / Math.PI}) translate({left} {-top})"
			/>
		{/if}
		<g transform="scale(1 -1)">
			<line class="guide" x1="0" x2="0" y1={-view.y} y2={-view.y - view.height} />
			<line class="guide" x1={view.x} x2={view.x + view.width} y1="0" y2="0" />
			{#each Object.entries(levels) as [level, along] (level)}
				{#if along}<line class="level" x1={view.x} x2={view.x + view.width} y1={along} y2={along} />{/if}
			{/each}
			{#if soFar}<path class="so-far" d={soFar} />{/if}
			{#each found?.lines ?? [] as line (line.lineage + line.start)}
				<path class="line" class:leg={line.role === 'dart_leg'} d={curvePath(line.points)} />
			{/each}
		</g>
		<text class="word" x={8 * perPixel} y={view.y + 16 * perPixel} font-size={12 * perPixel}>{upright}</text>
		<text class="word" x={view.x + 8 * perPixel} y={-5 * perPixel} font-size={12 * perPixel}>level guide</text
		>
		{#each Object.entries(levels) as [level, along] (level)}
			{#if along}
				<text class="word" x={view.x + 8 * perPixel} y={-along - 4 * perPixel} font-size={12 * perPixel}>
					{level}
				</text>
			{/if}
		{/each}
		{#each names as { key, name, x, y } (key)}
			<text class="name" x={x + 9 * perPixel} y={-y + 16 * perPixel} font-size={13 * perPixel}>{name}</text>
		{/each}
		{#each panel.marks as mark, i (i)}
			<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
			<g
				class="mark"
				class:odd={odd.has(i)}
				class:current={current === i}
				transform="translate({mark.across} {-mark.along})"
				data-mark={i}
				onclick={() => onpick(i)}
			>
				{#if current === i}<circle class="ring" r={1.7 * r} />{/if}
				<MarkShape kind={mark.kind} {r} />
				{#if odd.has(i) || current === i}
					<text x={1.6 * r} y={-1.1 * r} font-size={12 * perPixel}>
						{i + 1}{found?.off[i] ? `: ${shown(found.off[i])} off` : ''}
					</text>
				{/if}
				<!-- On top: what is small is met from near it. -->
				<circle class="near" r={2 * r} />
			</g>
		{/each}
	</svg>
</div>

<style>
	svg:focus-visible {
		outline-offset: -3px;
	}
	line,
	path {
		vector-effect: non-scaling-stroke;
		fill: none;
	}
	.under {
		opacity: 0.45;
	}
	.guide {
		stroke: var(--chalk);
		stroke-width: 1.4;
		stroke-dasharray: 10 5;
	}
	.level {
		stroke: var(--chalk);
		stroke-width: 1;
		stroke-dasharray: 2 5;
	}
	.so-far {
		stroke: var(--ink-soft);
		stroke-width: 1;
		stroke-dasharray: 4 4;
	}
	.line {
		stroke: var(--ink);
		stroke-width: 2;
	}
	.leg {
		stroke-width: 1.2;
	}
	.word {
		fill: var(--chalk);
	}
	.name {
		fill: var(--ink-soft);
		paint-order: stroke;
		stroke: var(--table);
		stroke-width: 4px;
		vector-effect: non-scaling-stroke;
	}
	.mark {
		cursor: pointer;
	}
	.ring {
		stroke: var(--mark, var(--pencil-3));
		stroke-width: 2;
		fill: none;
		vector-effect: non-scaling-stroke;
	}
	.near {
		fill: transparent;
	}
	.mark text {
		fill: var(--mark, var(--pencil-3));
		font-variant-numeric: tabular-nums;
	}
	.odd {
		--mark: var(--wax);
	}
	.current .ring {
		stroke-width: 1.6;
	}
</style>
