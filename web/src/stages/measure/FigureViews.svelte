<!-- The wearer from the front, back and side, with the tapes of the sheet; the measure pointed at stands out. -->
<script lang="ts">
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import BodyDrawing from '../../lib/parts/BodyDrawing.svelte';
	import type { SheetTaking } from './sheet.svelte';

	interface Props {
		sheet: SheetTaking;
		/** The measures whose tapes are drawn. */
		tapes: string[];
		onchoose: (symbol: string) => void;
		/** Show only the views on which the measure pointed at runs. */
		near?: boolean;
	}
	let { sheet, tapes, onchoose, near = false }: Props = $props();

	/** The one measure that runs over the whole body: it does not call for all of it to be shown. */
	const WHOLE = 'height';
	const VIEWS = ['front', 'back', 'side'] as const;
	const figure = $derived(sheet.review?.figure ?? null);
	const strong = $derived(new Set(tapes.filter((symbol) => sheet.isTaken(symbol))));
	const views = $derived.by(() => {
		if (!near || !figure || !sheet.pointed) return [...VIEWS];
		const on = new Set((figure.tapes[sheet.pointed] ?? []).map((tape) => tape.view));
		const some = VIEWS.filter((view) => on.has(view));
		return some.length ? some.slice(0, 2) : [...VIEWS];
	});
	/** Heights over the waist between which the body is shown: as near as the tapes allow, with some body around them. */
	const AROUND = { all: 9, near: 26 };
	const window = $derived.by(() => {
		const wanted = near && sheet.pointed ? [sheet.pointed] : tapes.filter((s) => s !== WHOLE);
		const lines = wanted.flatMap((s) => figure?.tapes[s] ?? []);
		const heights = lines.flatMap((tape) => tape.line.map((p) => p[1]));
		if (!heights.length || wanted.includes(WHOLE)) return { from: undefined, to: undefined };
		const air = near ? AROUND.near : AROUND.all;
		return { from: Math.min(...heights) - air, to: near ? Math.max(...heights) + air : undefined };
	});
</script>

<div class="views" data-figure>
	{#if figure}
		{#each views as view (view)}
			<BodyDrawing
				{figure}
				{view}
				from={window.from}
				to={window.to}
				label="The wearer, {view}"
				{tapes}
				{strong}
				lit={sheet.pointed}
				name={(symbol) => shelf.name(symbol)}
				onpoint={(symbol) => {
					if (symbol) sheet.pointed = symbol;
				}}
				{onchoose}
			/>
		{/each}
	{/if}
</div>

<style>
	.views {
		display: flex;
		height: 100%;
		gap: 0.2rem;
		justify-content: center;
	}
	.views :global(svg) {
		min-width: 0;
	}
</style>
