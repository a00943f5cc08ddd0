<!-- What is cut and what is bought, with boxes to tick while the hands are busy. -->
<script lang="ts">
	import { getDesk } from '../../lib/desk/context';
	import { reading, shown, spoken } from '../../lib/units.svelte';
	import type { CutTableKept } from './cutTable.svelte';
	import { sold } from './words';

	let { table }: { table: CutTableKept } = $props();
	const desk = getDesk();
	const uses = $derived(table.value?.uses ?? []);
	const shopping = $derived(table.value?.shopping ?? []);

	function amount(row: (typeof shopping)[number]): string {
		if (row.amount === null || row.amount === undefined) return 'lay it first';
		if (!row.unit) return String(Math.round(row.amount));
		// Cloth is told as it is sold; a notion as long as it is cut.
		return row.by_shop ? sold(row.amount, reading.unit) : shown(row.amount);
	}
</script>

<h2>To cut, in this order</h2>
{#each uses as one (one.use)}
	<h3>{one.title}</h3>
	<ul>
		{#each one.rows as row (row.piece)}
			<li>
				<label>
					<input type="checkbox" />
					<span>
						{row.title} <span class="soft">({row.label})</span>: {row.how}{row.says ? `. ${row.says}` : ''}
					</span>
				</label>
			</li>
		{/each}
	</ul>
{/each}
<p class="soft">
	The largest first: while the cloth is whole, a mistake can still be mended. Pin a label to every piece.
</p>
<h2>To buy</h2>
<ul>
	{#each shopping as row, i (i)}
		<li>
			<label>
				<input type="checkbox" />
				<span>
					{spoken(row.what)}, <strong>{amount(row)}</strong>{row.cost
						? `, ${row.cost.toFixed(2)}`
						: ''}{row.note ? ` (${row.note})` : ''}
				</span>
			</label>
		</li>
	{/each}
</ul>
<div class="row">
	{#each [['a4', 'A4'], ['letter', 'Letter']] as const as [paper, words] (paper)}
		<a
			class="button main"
			href={`/api/jobs/${desk.job?.id}/lists/print?paper=${paper}&unit=${reading.unit}`}
			download>Print the lists and labels, {words}</a
		>
	{/each}
	<a class="button" href={`/api/jobs/${desk.job?.id}/files/cutting-list`} download>Cutting list, CSV</a>
</div>

<style>
	h2 {
		font-size: 1.1rem;
		margin: 0.8rem 0 0.2rem;
	}
	h3 {
		font-size: 1rem;
		margin: 0.5rem 0 0.1rem;
	}
	h3::first-letter {
		text-transform: uppercase;
	}
	li {
		border-bottom: 1px solid var(--rule);
	}
	label {
		display: flex;
		gap: 0.6rem;
		align-items: baseline;
		padding: 0.3rem 0;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		margin: 0.6rem 0;
	}
</style>
