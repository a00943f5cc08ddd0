<!-- How far lines lie from each other, the farthest first; the one pointed at is lit on the table. -->
<script lang="ts">
	import type { Move } from '../../lib/api/client';
	import { shown } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';

	let { moves, onpoint }: { moves: Move[]; onpoint: (lines: string[]) => void } = $props();
</script>

<table class="figures">
	<thead>
		<tr><th>line</th><th>moved</th><th>length</th></tr>
	</thead>
	<tbody>
		{#each moves as move (`${move.piece} ${move.lineage}`)}
			<tr onpointerenter={() => onpoint([move.lineage])} onpointerleave={() => onpoint([])}>
				<td>{lineName(move.lineage)}</td>
				<td class="whole">{shown(move.distance)}</td>
				<td class="whole">{shown(move.length_before)} → {shown(move.length_after)}</td>
			</tr>
		{/each}
	</tbody>
</table>

<style>
	table {
		width: 100%;
		border-collapse: collapse;
		font-size: 0.95rem;
	}
	th {
		text-align: left;
		font-weight: 500;
		color: var(--ink-soft);
	}
	td,
	th {
		padding: 0.25rem 0.3rem 0.25rem 0;
		border-bottom: 1px solid var(--rule);
	}
	.whole {
		white-space: nowrap;
	}
	tbody tr:hover {
		background: var(--chalk-soft);
	}
</style>
