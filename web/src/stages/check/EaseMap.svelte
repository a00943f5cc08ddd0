<!-- The ease on the body: at every level and local width, pattern less body, against what is wanted. -->
<script lang="ts">
	import { api, type BodyDrawing as Drawn, type EasePlace } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import BodyDrawing from '../../lib/parts/BodyDrawing.svelte';
	import { shown } from '../../lib/units.svelte';

	let { ondraws }: { ondraws: (names: string[]) => void } = $props();

	const desk = getDesk();
	const drawing = desk.reads<Drawn>();
	const figure = $derived(drawing.value);
	let lit = $state<string | null>(null);

	$effect(() => {
		const sheet = desk.job?.sheet.id;
		if (sheet === undefined) return;
		void drawing.load(api.GET('/api/sheets/{sheet_id}/figure', { params: { path: { sheet_id: sheet } } }));
	});

	const places = $derived(desk.trial.preview?.ease_map ?? []);
	/** The tape of a place: its measure's own line on the figure. */
	const TAPES: Record<string, string> = {
		shoulder: 'shoulder_length',
		neck: 'neck_girth',
		bust: 'bust_girth',
		underbust: 'underbust_girth',
		waist: 'waist_girth',
		stomach: 'stomach_girth',
		high_hip: 'high_hip_girth',
		hip: 'hip_girth',
		thigh: 'thigh_girth',
		bicep: 'bicep_girth',
		elbow: 'elbow_girth',
		wrist: 'wrist_girth',
		hem: 'hem_girth',
	};
	const SIGNS: Record<string, string> = { tight: '▼', close: '▽', 'as meant': '●', loose: '△' };

	function lines(place: EasePlace, view: 'front' | 'back'): string[] {
		const tapes = figure?.tapes[TAPES[place.key] ?? place.key] ?? [];
		return tapes
			.filter((tape) => tape.view === view)
			.map((tape) => tape.line.map((p, i) => `${i ? 'L' : 'M'}${p[0]} ${-p[1]!}`).join(''));
	}

	function point(place: EasePlace | null): void {
		lit = place && place.key + place.half;
		const parts = place ? desk.trial.pieces.map((piece) => piece.part) : [];
		ondraws(parts.map((part) => `${part}.${place?.key}`));
	}

	const look = (place: EasePlace): string => place.state.replace(' ', '-');
</script>

{#if figure}
	<div class="figures-row">
		{#each ['front', 'back'] as const as view (view)}
			<figure>
				<BodyDrawing
					{figure}
					{view}
					label="The wearer from the {view}, with the ease at each level"
					from={-70}
				>
					{#snippet on()}
						{#each places.filter((p) => p.view === 'both' || p.view === view) as place (place.key + place.half)}
							{#each lines(place, view) as d, i (i)}
								<path {d} class="at {look(place)}" class:lit={lit === place.key + place.half}>
									<title>{place.label}: {place.state}</title>
								</path>
							{/each}
						{/each}
					{/snippet}
				</BodyDrawing>
				<figcaption>{view}</figcaption>
			</figure>
		{/each}
	</div>
{/if}
<p class="key">
	{#each Object.entries(SIGNS) as [name, sign] (name)}
		<span class={name.replace(' ', '-')}>{sign} {name}</span>
	{/each}
</p>
<table class="figures">
	<thead><tr><th>Where</th><th>Pattern</th><th>Body</th><th>Ease</th><th>Wanted</th><th></th></tr></thead>
	<tbody>
		{#each places as place (place.key + place.half)}
			<tr
				class={look(place)}
				tabindex="0"
				onpointerenter={() => point(place)}
				onpointerleave={() => point(null)}
				onfocus={() => point(place)}
				onblur={() => point(null)}
			>
				<td
					>{place.label}{#if place.because}<span class="soft full">{place.because}</span>{/if}</td
				>
				<td>{shown(place.pattern)}</td>
				<td>{shown(place.body)}</td>
				<td
					>{shown(place.pattern - (place.fullness ?? 0) - place.body)}{#if place.fullness}
						<span class="soft full">and {shown(place.fullness)} full</span>{/if}</td
				>
				<td>{shown(place.wanted)}</td>
				<td class="state" title={place.state}
					>{SIGNS[place.state]}<span class="sr-only">{place.state}</span></td
				>
			</tr>
		{/each}
	</tbody>
</table>
<p class="soft">
	Levels are measured as sewn where a line is drawn on the pattern, else straight across the paper. Gathers,
	pleats and flare are fullness, not ease. Body figures that were not taken are estimated.
</p>

<style>
	.figures-row {
		display: flex;
		gap: 0.4rem;
	}
	figure {
		margin: 0;
		flex: 1;
		min-width: 0;
	}
	figure :global(svg) {
		height: 15rem;
	}
	figcaption {
		text-align: center;
		color: var(--ink-soft);
	}
	.at {
		fill: none;
		stroke-width: 2;
		vector-effect: non-scaling-stroke;
	}
	.at.tight {
		stroke: var(--wax);
		stroke-width: 4;
	}
	.at.close {
		stroke: var(--amber);
		stroke-width: 3;
		stroke-dasharray: 6 3;
	}
	.at.as-meant {
		stroke: var(--moss);
	}
	.at.loose {
		stroke: var(--chalk);
		stroke-dasharray: 2 3;
	}
	.at.lit {
		stroke-width: 6;
	}
	.key {
		display: flex;
		gap: 0.9rem;
		margin: 0.3rem 0;
		font-size: 0.92rem;
	}
	.tight,
	tr.tight .state {
		color: var(--wax);
	}
	.close,
	tr.close .state {
		color: var(--amber);
	}
	.as-meant .state,
	span.as-meant {
		color: var(--moss);
	}
	.loose .state,
	span.loose {
		color: var(--chalk);
	}
	tr {
		color: var(--ink);
	}
	table {
		width: 100%;
		border-collapse: collapse;
		font-size: 0.92rem;
	}
	th,
	td {
		text-align: right;
		padding: 0.12rem 0.2rem;
		border-bottom: 1px solid var(--rule);
		white-space: nowrap;
	}
	th:first-child,
	td:first-child {
		text-align: left;
		white-space: normal;
	}
	.full {
		display: block;
	}
</style>
