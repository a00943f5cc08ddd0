<!-- The lines of a panel: what each is, how it is drawn through its marks, how far its dots lie off. -->
<script lang="ts">
	import type { GivenPanel, LineSaid, Panel } from '../../lib/api/client';
	import { shown } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';

	interface Props {
		panel: Panel;
		found: GivenPanel;
		onsay: (line: string, change: Partial<LineSaid>) => void;
		onlight: (lineages: string[]) => void;
	}
	let { panel, found, onsay, onlight }: Props = $props();

	const ROLES = [
		'centre_front',
		'centre_back',
		'neck',
		'shoulder',
		'armhole',
		'side',
		'panel',
		'waist',
		'hem',
		'cap',
		'underarm',
		'inseam',
		'crotch',
	] as const;
	const WAYS: Record<LineSaid['way'], string> = {
		dots: 'as its dots lie',
		straight: 'straight',
		curved: 'curved',
		through_all: 'through all',
	};
	/** A line that a corner or a dart parts is said once. */
	const lines = $derived(
		found.lines.filter(
			(line, i) => line.role !== 'dart_leg' && found.lines.findIndex((one) => one.name === line.name) === i,
		),
	);
	function of(name: string): GivenPanel['lines'] {
		return found.lines.filter((line) => line.name === name);
	}
	const squared = ['neck', 'waist', 'hem'];
</script>

<table>
	<thead>
		<tr><th>Line</th><th>is</th><th>drawn</th><th class="number">dots off</th></tr>
	</thead>
	<tbody>
		{#each lines as line (line.name + line.start)}
			{@const parts = of(line.name)}
			{@const said = panel.lines[line.name]}
			{@const off = Math.max(...parts.map((part) => part.farthest))}
			<tr onpointerenter={() => onlight([line.lineage])} onpointerleave={() => onlight([])}>
				<td>{line.name ? line.name.replaceAll('_', ' ') : 'not named'}</td>
				<td>
					<select
						class="field"
						aria-label="{line.name}: what it is"
						value={line.role}
						disabled={!line.name}
						onfocus={() => onlight([line.lineage])}
						onchange={(e) => onsay(line.name, { role: e.currentTarget.value as LineSaid['role'] })}
					>
						{#each ROLES as role (role)}
							<option value={role}>{role === 'panel' ? 'between panels' : lineName(role)}</option>
						{/each}
					</select>
				</td>
				<td>
					<select
						class="field"
						aria-label="{line.name}: how it is drawn"
						value={line.way}
						disabled={!line.name || !!said?.drawn?.length}
						onchange={(e) => onsay(line.name, { way: e.currentTarget.value as LineSaid['way'] })}
					>
						{#each Object.entries(WAYS) as [way, words] (way)}<option value={way}>{words}</option>{/each}
					</select>
					{#if squared.includes(line.role)}
						<label class="square">
							<input
								type="checkbox"
								checked={said?.square !== false}
								onchange={(e) => onsay(line.name, { square: e.currentTarget.checked ? null : false })}
							/>
							square at the centre
						</label>
					{/if}
				</td>
				<td class="number figures">{parts.some((part) => part.dots) ? shown(off) : '–'}</td>
			</tr>
		{/each}
	</tbody>
</table>

<style>
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th {
		text-align: left;
		font-weight: 500;
		color: var(--ink-soft);
		font-size: 0.9rem;
	}
	td {
		padding: 0.15rem 0.3rem 0.15rem 0;
		vertical-align: top;
	}
	.number {
		text-align: right;
		padding-right: 0;
		white-space: nowrap;
	}
	select {
		min-height: 2rem;
		padding: 0.1rem 0.3rem;
		max-width: 10rem;
	}
	.square {
		display: flex;
		align-items: center;
		gap: 0.3rem;
		font-size: 0.9rem;
		color: var(--ink-soft);
	}
	tr:hover td {
		background: var(--chalk-soft);
	}
</style>
