<!-- Sheets over time: what moved between two of them, and what each job would change if it were drafted again. -->
<script lang="ts">
	import { api, type Comparison, type Sheet } from '../../lib/api/client';
	import { Loaded } from '../../lib/api/loaded.svelte';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { reading, show, shown } from '../../lib/units.svelte';
	import { day, lineName } from '../../lib/words';
	import { p } from '../../router';

	interface Props {
		wearer: string;
		/** The sheet that the job on the desk is drafted from; null without a job. */
		current: number | null;
		/** The job on the desk, if there is one. */
		job?: string | null;
		onchoose: (sheet: Sheet) => void;
	}
	let { wearer, current, job = null, onchoose }: Props = $props();

	const all = new Loaded<Sheet[]>();
	const sheets = $derived(all.value);
	const compared = new Loaded<Comparison>();
	const comparison = $derived(compared.value);
	const problem = $derived(all.problem ?? compared.problem);
	let before = $state(0);
	let after = $state(0);
	let every = $state(false);

	// svelte-ignore state_referenced_locally
	const path = { wearer_id: wearer };
	void all.load(api.GET('/api/wearers/{wearer_id}/sheets', { params: { path } })).then((found) => {
		after = found?.[0]?.number ?? 0;
		before = found?.[1]?.number ?? after;
	});

	$effect(() => {
		if (!before || !after || before === after) return compared.clear();
		const query = { before, after };
		void compared.load(api.GET('/api/wearers/{wearer_id}/sheets/compare', { params: { path, query } }));
	});

	const BY: Record<string, string> = {
		helper: 'by a helper',
		alone: 'alone',
		scan: 'by a scanner',
		chart: 'from a size chart',
	};
	const rows = $derived(
		(comparison?.differences ?? []).filter(
			(d) => every || (d.beyond && d.before !== null && d.after !== null),
		),
	);
	const onlyOne = $derived(
		(comparison?.differences ?? []).filter((d) => d.before === null || d.after === null).length,
	);

	function file(sheet: Sheet, kind: string): string {
		return `/api/sheets/${sheet.id}/files/${kind}`;
	}
</script>

<div class="over-time">
	<section aria-label="Sheets">
		<h2>Sheets, the newest first</h2>
		{#if problem}<ProblemNote {problem} />{/if}
		<table class="figures list">
			<thead>
				<tr><th>from</th><th>to</th><th>sheet</th><th></th><th></th></tr>
			</thead>
			<tbody>
				{#each sheets ?? [] as sheet (sheet.id)}
					<tr>
						<td
							><input
								type="radio"
								name="before"
								aria-label="Compare from sheet {sheet.number}"
								value={sheet.number}
								bind:group={before}
							/></td
						>
						<td
							><input
								type="radio"
								name="after"
								aria-label="Compare to sheet {sheet.number}"
								value={sheet.number}
								bind:group={after}
							/></td
						>
						<td>
							<strong>Sheet {sheet.number}</strong>, {day(sheet.taken_on)}, {BY[sheet.taken_by] ??
								sheet.taken_by}
							<span class="soft"
								>{sheet.readings.length} measures{sheet.worn ? `, over ${sheet.worn}` : ''}</span
							>
						</td>
						<td class="files">
							<a href={file(sheet, 'pdf')} download>print</a>
							<a href={file(sheet, 'csv')} download>CSV</a>
							<a href={file(sheet, 'json')} download>JSON</a>
						</td>
						<td>
							{#if current === sheet.number}
								<span class="soft">this job’s sheet</span>
							{:else if current !== null}
								<button class="button small" onclick={() => onchoose(sheet)}
									>Draft from sheet {sheet.number}</button
								>
								{#if job}<a
										class="button small"
										href="{p('/jobs/:job/fit', {
											params: { job },
										})}?guide=papers&under=sheet-{sheet.number}&over=now">Lay it under first</a
									>{/if}
							{/if}
						</td>
					</tr>
				{/each}
			</tbody>
		</table>
		{#if sheets && sheets.length < 2}
			<p class="soft">
				{sheets.length
					? 'One sheet so far. A new one stands beside it; it never writes over it.'
					: 'No sheet has been kept yet.'}
			</p>
		{/if}
	</section>
	{#if comparison}
		<section aria-label="What moved" data-comparison>
			<h2>From sheet {comparison.before} to sheet {comparison.after}</h2>
			{#if rows.length === 0}<p class="soft">Nothing moved by more than a tape’s tolerance.</p>{/if}
			<table class="figures">
				<tbody>
					{#each rows as d (d.symbol)}
						<tr class:still={!d.beyond}>
							<td>{shelf.name(d.symbol)}</td>
							<td>{d.before === null ? '–' : shown(d.before)}</td>
							<td>{d.after === null ? '–' : shown(d.after)}</td>
							<td class="by">
								{#if d.before !== null && d.after !== null}{d.after > d.before ? '+' : ''}{show(
										d.after - d.before,
										reading.unit,
									)}{/if}
							</td>
						</tr>
					{/each}
				</tbody>
			</table>
			<p>
				<button class="button small" onclick={() => (every = !every)}
					>{every ? 'Only what moved' : 'All measures'}</button
				>
				{#if onlyOne && !every}<span class="soft">{onlyOne} stand on one of the two only.</span>{/if}
			</p>
			<h2>What the jobs would change</h2>
			{#each comparison.jobs as job (job.job)}
				<p class="job">
					<strong>{job.garment}</strong>
					<span class="soft">drafted from sheet {job.sheet}; all its steps stay</span>
				</p>
				{#if job.refused}
					<p class="odd">{job.refused}</p>
				{:else if job.pieces.length === 0}
					<p class="soft">nothing</p>
				{:else}
					<ul>
						{#each job.pieces as piece (piece.piece)}
							<li>
								{piece.title}: up to <span class="figures">{shown(piece.distance)}</span> at the {lineName(
									piece.lineage,
								)}; {lineName(piece.stretched)}
								<span class="figures">{shown(piece.length_before)} → {shown(piece.length_after)}</span>
							</li>
						{/each}
					</ul>
				{/if}
			{:else}
				<p class="soft">No job yet.</p>
			{/each}
		</section>
	{/if}
</div>

<style>
	.over-time {
		display: grid;
		grid-template-columns: 1fr 26rem;
		gap: 1.5rem;
		padding: 0.8rem 1.2rem;
		height: 100%;
		overflow: auto;
	}
	h2 {
		font-size: 1.15rem;
		margin: 0.4rem 0 0.4rem;
	}
	table {
		width: 100%;
	}
	td,
	th {
		padding: 0.28rem 0.5rem 0.28rem 0;
		text-align: left;
		vertical-align: top;
		border-bottom: 1px solid var(--rule);
	}
	th {
		color: var(--ink-soft);
		font-weight: 500;
	}
	.list td:first-child,
	.list td:nth-child(2) {
		width: 2.6rem;
	}
	.files a {
		margin-right: 0.6rem;
		text-decoration: underline;
	}
	.by {
		text-align: right;
		font-weight: 600;
	}
	.still td {
		color: var(--ink-soft);
		font-weight: 400;
	}
	.list .soft {
		display: block;
	}
	.job {
		margin: 0.4rem 0 0;
	}
	ul {
		list-style: disc;
		padding-left: 1.2rem;
		margin: 0;
	}
	.odd {
		color: var(--wax);
	}
	@media (max-width: 900px) {
		.over-time {
			grid-template-columns: 1fr;
		}
	}
</style>
