<!-- Sizes of a chart that are cut together, in place of the wearer's own measures. -->
<script lang="ts">
	import { api, type Chart, type SizesOfRun } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { reading, show } from '../../lib/units.svelte';
	import type { CutTableKept } from './cutTable.svelte';

	let { table }: { table: CutTableKept } = $props();
	const desk = getDesk();
	const charts = desk.reads<Chart[]>();
	void charts.load(api.GET('/api/charts'));

	const run = $derived(table.value?.kept.run ?? null);
	const chart = $derived(charts.value?.find((one) => one.key === run?.chart) ?? null);

	function take(key: string): void {
		const found = charts.value?.find((one) => one.key === key);
		const middle = found?.sizes[Math.floor((found.sizes.length - 1) / 2)]?.name;
		void table.sizes(
			found && middle
				? { chart: key, sizes: [middle], height: found.usual_height || null, bodies: {} }
				: null,
		);
	}

	function change(by: Partial<SizesOfRun>): void {
		if (run) void table.sizes({ ...run, ...by });
	}

	function toggle(size: string, on: boolean): void {
		if (!run || !chart) return;
		// In the order of the chart; the last one stays.
		const sizes = chart.sizes
			.map((one) => one.name)
			.filter((name) => (name === size ? on : run.sizes.includes(name)));
		if (sizes.length) change({ sizes });
	}
</script>

<label class="row">
	<span class="soft">Cut for</span>
	<select
		class="field"
		disabled={desk.deeds.busy}
		value={run?.chart ?? ''}
		onchange={(e) => take(e.currentTarget.value)}
	>
		<option value="">{desk.job?.wearer.name ?? 'the wearer'}</option>
		{#each charts.value ?? [] as one (one.key)}<option value={one.key}>sizes: {one.title}</option>{/each}
	</select>
</label>
{#if run && chart}
	<fieldset>
		<legend class="soft">Sizes laid together</legend>
		{#each chart.sizes as size (size.name)}
			<label>
				<input
					type="checkbox"
					checked={run.sizes.includes(size.name)}
					disabled={desk.deeds.busy}
					onchange={(e) => toggle(size.name, e.currentTarget.checked)}
				/>
				{size.name}
			</label>
		{/each}
	</fieldset>
	{#if chart.heights.length}
		<label class="row">
			<span class="soft">Height</span>
			<select
				class="field"
				disabled={desk.deeds.busy}
				value={run.height}
				onchange={(e) => change({ height: Number(e.currentTarget.value) })}
			>
				{#each chart.heights as h (h)}<option value={h}>{show(h, reading.unit)} {reading.unit}</option>{/each}
			</select>
		</label>
	{/if}
	<p class="prints">
		{#each [['a0', 'Sizes nested, A0'], ['roll', 'on a roll'], ['a4', 'A4'], ['letter', 'Letter']] as const as [paper, words] (paper)}
			<a class="button small" href={`/api/jobs/${desk.job?.id}/run/print?paper=${paper}`} download>{words}</a>
		{/each}
	</p>
{/if}
{#each table.value?.left_out ?? [] as words, i (i)}<p class="note wrong">{words}</p>{/each}

<style>
	.row {
		display: flex;
		gap: 0.6rem;
		align-items: center;
		margin: 0.4rem 0;
	}
	select {
		min-width: 0;
	}
	fieldset {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 0.9rem;
		margin: 0.3rem 0;
	}
	.prints {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem;
		margin: 0.4rem 0;
	}
</style>
