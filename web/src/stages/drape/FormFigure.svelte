<!-- Half of the form, unrolled from centre front to centre back: where a panel is measured, longest and widest. -->
<script lang="ts">
	interface Props {
		titles: string[];
		/** The panel that is measured, by its place. */
		at: number;
	}
	let { titles, at }: Props = $props();

	const WIDE = 300;
	const TOP = 24;
	const FOOT = 150;
	/** Heights of the upper edge from centre front to centre back, as a share of the figure: high over the bust, low at the side. */
	const EDGE = [0.2, 0.02, 0.34, 0.3, 0.3];
	const each = $derived(WIDE / Math.max(titles.length, 1));

	function top(x: number): number {
		const at = (x / WIDE) * (EDGE.length - 1);
		const i = Math.min(Math.floor(at), EDGE.length - 2);
		// Level at every place that is named, so that it runs on smoothly.
		const eased = (1 - Math.cos((at - i) * Math.PI)) / 2;
		const share = EDGE[i]! + (EDGE[i + 1]! - EDGE[i]!) * eased;
		return TOP + share * (FOOT - TOP);
	}
	const outline = $derived.by(() => {
		const points = Array.from({ length: 31 }, (_, i) => (i / 30) * WIDE);
		return `M0 ${FOOT}L${points.map((x) => `${x} ${top(x)}`).join('L')}L${WIDE} ${FOOT}Z`;
	});
	const left = $derived(at * each);
	/** The panel as it lies on the form. */
	const within = $derived.by(() => {
		const points = Array.from({ length: 13 }, (_, i) => left + (i / 12) * each);
		return `M${left} ${FOOT}L${points.map((x) => `${x} ${top(x)}`).join('L')}L${left + each} ${FOOT}Z`;
	});
	const middle = $derived(left + each / 2);
	const highest = $derived(Math.min(top(left), top(left + each), top(middle)));
	const level = $derived(TOP + 0.45 * (FOOT - TOP));
</script>

<svg
	viewBox="-14 0 {WIDE + 28} 178"
	role="img"
	aria-label="Where the {titles[at]?.toLowerCase() ?? 'panel'} is measured"
>
	<defs>
		<marker id="tip" viewBox="-4 -4 8 8" markerWidth="7" markerHeight="7" orient="auto-start-reverse">
			<path d="M-3 -3L1 0L-3 3" />
		</marker>
	</defs>
	<path class="form" d={outline} />
	<path class="panel" d={within} />
	{#each titles.slice(1) as title, i (title)}
		<line class="tape" x1={(i + 1) * each} x2={(i + 1) * each} y1={top((i + 1) * each)} y2={FOOT} />
	{/each}
	<line class="level" x1="0" x2={WIDE} y1={level} y2={level} />
	<line class="measure" x1={middle} x2={middle} y1={highest + 3} y2={FOOT - 3} />
	<line class="measure" x1={left + 3} x2={left + each - 3} y1={level} y2={level} />
	<text x="0" y="168">centre front</text>
	<text x={WIDE} y="168" text-anchor="end">centre back</text>
	<text x={middle + 4} y={FOOT - 12}>length</text>
	<text x={middle + 5} y={level - 5}>width</text>
</svg>

<style>
	svg {
		width: 100%;
		max-width: 24rem;
	}
	.form {
		fill: var(--paper);
		stroke: var(--ink);
		stroke-width: 1.5;
	}
	.panel {
		fill: var(--chalk-soft);
	}
	.tape {
		stroke: var(--ink);
		stroke-width: 2.5;
	}
	.level {
		stroke: var(--ink-soft);
		stroke-dasharray: 3 4;
	}
	.measure {
		stroke: var(--chalk);
		stroke-width: 1.8;
		marker-start: url(#tip);
		marker-end: url(#tip);
	}
	marker path {
		fill: none;
		stroke: var(--chalk);
		stroke-width: 1.6;
	}
	text {
		font-size: 11px;
		fill: var(--ink-soft);
	}
</style>
