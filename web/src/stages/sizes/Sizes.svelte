<!-- Size charts: those that ship, and the maker's own, written or pasted as a sheet of sizes. -->
<script lang="ts">
	import { answered, api, asProblem, type Chart, type Problem } from '../../lib/api/client';
	import { Loaded } from '../../lib/api/loaded.svelte';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import Head from '../../lib/parts/Head.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { reading, show, type Unit } from '../../lib/units.svelte';
	import { p } from '../../router';

	const EXAMPLE = [
		'size, bust girth (in), waist girth (in), hip girth (in)',
		'S, 34 1/2, 27, 37',
		'M, 36 1/2, 29, 39',
	].join('\n');

	const loaded = new Loaded<Chart[]>();
	const charts = $derived(loaded.value ?? []);
	const removed = new Loaded<unknown>();
	let refused = $state<Problem | null>(null);
	const problem = $derived(refused ?? removed.problem ?? loaded.problem);
	let key = $state('');
	let title = $state('');
	let source = $state('');
	let csv = $state('');
	let asksUnit = $state(false);
	let busy = $state(false);

	const chart = $derived(charts.find((c) => c.key === key) ?? charts[0]);
	const columns = $derived([...new Set(chart?.sizes.flatMap((s) => Object.keys(s.cm)) ?? [])]);

	const load = (): Promise<unknown> => loaded.load(api.GET('/api/charts'));
	void load();
	void shelf.load();

	async function beginFrom(): Promise<void> {
		if (!chart) return;
		const answer = await fetch(`/api/charts/${chart.key}/files/csv`);
		csv = await answer.text();
		title = `${chart.title}, my own`;
	}

	async function bringIn(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
		const file = event.currentTarget.files?.[0];
		event.currentTarget.value = '';
		if (!file) return;
		csv = await file.text();
		title ||= file.name.replace(/\.[^.]*$/, '');
	}

	async function keep(unit?: Unit): Promise<void> {
		busy = true;
		asksUnit = false;
		refused = null;
		try {
			const kept = await answered(
				api.POST('/api/charts', { body: { title, source, csv, unit: unit ?? null } }),
			);
			title = source = csv = '';
			await load();
			key = kept.key;
		} catch (error) {
			const found = asProblem(error);
			if (found.code === 'unit-not-stated') asksUnit = true;
			else refused = found;
		} finally {
			busy = false;
		}
	}

	async function remove(gone: Chart): Promise<void> {
		await removed.load(api.DELETE('/api/charts/{chart_id}', { params: { path: { chart_id: gone.key } } }));
		await load();
	}
</script>

<svelte:head><title>Size charts · Izett</title></svelte:head>
<div class="page">
	<Head><h1>Size charts</h1></Head>
	<main>
		<section>
			<p>
				A size of a chart is drafted like a wearer: <a href={p('/new')}>write a ticket</a> and choose “A standard
				size”. What the chart does not say is estimated.
			</p>
			<div class="choose">
				<label for="chart">Chart</label>
				<select id="chart" class="field" value={chart?.key} onchange={(e) => (key = e.currentTarget.value)}>
					{#each charts as c (c.key)}<option value={c.key}>{c.title}</option>{/each}
				</select>
			</div>
			{#if chart}
				<p class="soft">
					{chart.source || 'your own'}{#if chart.heights.length}; heights {show(
							chart.heights[0] ?? 0,
							reading.unit,
						)} to {show(chart.heights.at(-1) ?? 0, reading.unit)}
						{reading.unit}{/if}
				</p>
				<table class="figures">
					<thead>
						<tr>
							<th>Size</th>
							{#each columns as symbol (symbol)}<th>{shelf.name(symbol)}</th>{/each}
						</tr>
					</thead>
					<tbody>
						{#each chart.sizes as size (size.name)}
							<tr>
								<th scope="row">{size.name}</th>
								{#each columns as symbol (symbol)}
									<td>{size.cm[symbol] === undefined ? '' : show(size.cm[symbol], reading.unit)}</td>
								{/each}
							</tr>
						{/each}
					</tbody>
				</table>
				<p class="deeds">
					<a class="button small" href="/api/charts/{chart.key}/files/csv" download>Save as CSV</a>
					<button class="button small" onclick={beginFrom}>Begin one of your own from it</button>
					{#if chart.own}
						<button class="button small" onclick={() => remove(chart)}>Delete {chart.title}</button>
					{/if}
				</p>
			{/if}
		</section>
		<form
			class="sheet"
			onsubmit={(e) => {
				e.preventDefault();
				void keep();
			}}
		>
			<h2>A chart of your own</h2>
			{#if problem}<ProblemNote {problem} />{/if}
			{#if asksUnit}
				<div class="note">
					<p>The chart does not say what its lengths are in.</p>
					<button type="button" class="button small main" onclick={() => keep('cm')}>Centimetres</button>
					<button type="button" class="button small main" onclick={() => keep('in')}>Inches</button>
				</div>
			{/if}
			<label for="title">Name</label>
			<input id="title" class="field" bind:value={title} required maxlength="120" autocomplete="off" />
			<label for="source">Where it comes from</label>
			<input id="source" class="field" bind:value={source} maxlength="200" autocomplete="off" />
			<label for="csv">Sizes: a heading of measures, then a size in each line</label>
			<textarea id="csv" class="field figures" rows="12" bind:value={csv} required placeholder={EXAMPLE}
			></textarea>
			<p class="deeds">
				<button class="button main" disabled={busy}>Keep the chart</button>
				<label class="button">
					From a file
					<input type="file" accept=".csv,.txt,text/csv" class="sr-only" onchange={bringIn} />
				</label>
			</p>
		</form>
	</main>
</div>

<style>
	.page {
		height: 100%;
		display: flex;
		flex-direction: column;
	}
	h1 {
		font-size: 1.15rem;
		margin: 0;
	}
	h2 {
		font-size: 1.15rem;
		margin: 0;
	}
	main {
		display: grid;
		grid-template-columns: 1fr 27rem;
		gap: 1.6rem;
		padding: 1.2rem;
		overflow: auto;
		flex: 1;
		min-height: 0;
		align-items: start;
	}
	form {
		display: grid;
		gap: 0.5rem;
		padding: 1rem;
	}
	.choose {
		display: flex;
		gap: 0.8rem;
		align-items: center;
		margin: 0.6rem 0;
	}
	a:not(.button) {
		text-decoration: underline;
	}
	table {
		min-width: 26rem;
	}
	th,
	td {
		text-align: right;
		padding: 0.25rem 0.8rem 0.25rem 0;
		border-bottom: 1px solid var(--rule);
		font-weight: 400;
	}
	th:first-child {
		text-align: left;
		font-weight: 600;
	}
	thead th {
		color: var(--ink-soft);
	}
	.deeds {
		display: flex;
		gap: 0.6rem;
		margin-top: 0.8rem;
	}
	@media (max-width: 900px) {
		main {
			grid-template-columns: 1fr;
		}
	}
</style>
