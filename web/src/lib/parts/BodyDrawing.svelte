<!-- The drawn body, in one view, with the tapes of measures on it; what lies on it besides is the caller's. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { BodyDrawing } from '../api/client';

	interface Props {
		figure: BodyDrawing;
		view: 'front' | 'back' | 'side';
		label: string;
		/** Measures whose tapes are drawn; those in `strong` stand out as taken. */
		tapes?: string[];
		strong?: Set<string>;
		lit?: string | null;
		/** Heights over the waist (cm) between which the body is shown; all of it where they are left out. */
		from?: number;
		to?: number;
		name?: (symbol: string) => string;
		onpoint?: (symbol: string | null) => void;
		onchoose?: (symbol: string) => void;
		on?: Snippet;
	}
	let {
		figure,
		view,
		label,
		tapes = [],
		strong = new Set(),
		lit = null,
		from,
		to,
		name = (s) => s,
		onpoint = () => {},
		onchoose = () => {},
		on,
	}: Props = $props();

	const AIR = 3;
	const outline = $derived(figure.outlines[view] ?? []);
	const box = $derived.by(() => {
		const all = view === 'side' ? outline : (figure.outlines.front ?? []);
		const top = Math.min(to ?? Infinity, Math.max(...all.map((p) => p[1]))) + AIR;
		const low = Math.max(from ?? -Infinity, Math.min(...all.map((p) => p[1]))) - AIR;
		const shown = all.filter((p) => p[1] <= top && p[1] >= low);
		const left = Math.min(...shown.map((p) => p[0])) - AIR;
		const right = Math.max(...shown.map((p) => p[0])) + AIR;
		return { left, low, width: right - left, height: top - low, top };
	});

	function d(line: [number, number][] | number[][]): string {
		return line.map((p, i) => `${i ? 'L' : 'M'}${p[0]} ${p[1]}`).join('');
	}

	const lines = $derived(
		tapes.flatMap((symbol) =>
			(figure.tapes[symbol] ?? [])
				.filter((tape) => tape.view === view)
				.map((tape) => ({ symbol, path: d(tape.line) })),
		),
	);
	const own = $props.id();
</script>

<svg
	viewBox="{box.left} {-box.top} {box.width} {box.height}"
	style:flex="{box.width} 1 0"
	role="group"
	aria-label={label}
	onpointerleave={() => onpoint(null)}
>
	<clipPath id={own}><rect x={box.left} y={box.low} width={box.width} height={box.height} /></clipPath>
	<g transform="scale(1 -1)" clip-path="url(#{own})">
		<path class="silhouette" d="{d(outline)}Z" data-outline={view} />
		{#each figure.details[view] ?? [] as detail, i (i)}<path class="detail" d={d(detail)} />{/each}
		{#each lines as { symbol, path }, i (i)}
			<path class="tape" class:strong={strong.has(symbol)} class:lit={symbol === lit} d={path} />
		{/each}
		{#each lines as { symbol, path }, i (i)}
			<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions (the field of the same name is there for the keyboard) -->
			<path
				class="reach"
				data-tape={symbol}
				d={path}
				onpointerenter={() => onpoint(symbol)}
				onclick={() => onchoose(symbol)}
			>
				<title>{name(symbol)}</title>
			</path>
		{/each}
		{#if lit}
			{#each lines.filter((line) => line.symbol === lit) as { path }, i (i)}
				<path class="tape lit" data-lit={lit} d={path} />
			{/each}
		{/if}
	</g>
	{@render on?.()}
</svg>

<style>
	svg {
		width: 100%;
		height: 100%;
		display: block;
	}
	path {
		fill: none;
		vector-effect: non-scaling-stroke;
		stroke-linecap: round;
		stroke-linejoin: round;
	}
	.silhouette {
		fill: var(--color-surface-100);
		stroke: var(--ink);
		stroke-width: 1.4;
	}
	:global([data-mode='dark']) .silhouette {
		fill: oklch(0.36 0.008 85);
	}
	.detail {
		stroke: var(--ink-soft);
		stroke-width: 0.9;
		opacity: 0.55;
	}
	.tape {
		stroke: var(--ink-soft);
		stroke-width: 1;
		stroke-dasharray: 2 3;
		opacity: 0.55;
		pointer-events: none;
	}
	.tape.strong {
		stroke: var(--chalk);
		stroke-dasharray: none;
		opacity: 0.6;
	}
	.tape.lit {
		stroke: var(--wax);
		stroke-width: 3.2;
		stroke-dasharray: none;
		opacity: 1;
	}
	.reach {
		stroke: transparent;
		stroke-width: 9;
		cursor: pointer;
		pointer-events: stroke;
	}
</style>
