<!-- A drape beside a draft of the same wearer: what it took in or let out, and what the draft could learn from it. -->
<script lang="ts">
	import { api, type Beside, type Job, type Learn, type Ticket } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { withSteps, withValue } from '../../lib/desk/recipe';
	import { shown, spoken } from '../../lib/units.svelte';

	const desk = getDesk();
	const bench = desk.reads<Ticket[]>();
	const found = desk.reads<Beside>();
	const kept = desk.reads<Job>();
	let other = $state('');
	/** What the draft has learned here, in words. */
	let learned = $state<string[]>([]);
	let all = $state(false);

	const drafts = $derived(
		(bench.value ?? []).filter(
			(ticket) => ticket.wearer === desk.job?.wearer.name && ticket.id !== desk.job?.id,
		),
	);
	const rows = $derived((found.value?.differences ?? []).filter((one) => all || one.seen));
	void bench.load(api.GET('/api/bench'));

	function lay(id: string): void {
		other = id;
		learned = [];
		if (!id || !desk.job) return found.clear();
		void found.load(
			api.GET('/api/jobs/{job_id}/beside/{other_id}', {
				params: { path: { job_id: desk.job.id, other_id: id } },
			}),
		);
	}

	/** Give the draft what it learns; it is that job's change, and is undone there. */
	async function learn(way: Learn, what: string): Promise<void> {
		const beside = found.value;
		if (!beside || !desk.job) return;
		const why = `${desk.job.garment}: ${what}`;
		const recipe = way.symbol
			? withValue(beside.recipe, way.symbol, way.value, why)
			: withSteps(beside.recipe, way.steps);
		const done = await kept.load(
			api.PUT('/api/jobs/{job_id}/recipe', {
				params: { path: { job_id: other }, header: { 'If-Match': `"${beside.version}"` } },
				body: { recipe, why },
			}),
		);
		if (!done) return;
		const so = [...learned, way.words];
		lay(other);
		learned = so;
	}

	function signed(by: number): string {
		return `${by > 0 ? '+' : '−'}${shown(Math.abs(by))}`;
	}
</script>

<label for="beside">Laid beside</label>
<select id="beside" class="field" value={other} onchange={(e) => lay(e.currentTarget.value)}>
	<option value="">choose a draft of {desk.job?.wearer.name}</option>
	{#each drafts as ticket (ticket.id)}<option value={ticket.id}>{ticket.garment}</option>{/each}
</select>
{#if bench.value && !drafts.length}
	<p class="soft">{desk.job?.wearer.name} has no other garment to compare it with.</p>
{/if}
{#if found.problem}
	<p class="soft" role="alert">{spoken(found.problem.message)} {spoken(found.problem.fix)}</p>
{:else if found.value}
	{#each learned as words (words)}<p role="status">
			Taken into {found.value.garment}: {spoken(words)}.
		</p>{/each}
	{#if kept.problem}
		<p role="alert">{spoken(kept.problem.message)} {spoken(kept.problem.fix)}</p>
	{/if}
	{#if rows.length}
		<table class="figures readings">
			<thead><tr><th>read</th><th>drape</th><th>draft</th><th>drape less draft</th></tr></thead>
			<tbody>
				{#each rows as row (row.what)}
					<tr class:seen={row.seen}>
						<th scope="row">{row.what}</th>
						<td>{shown(row.drape)}</td>
						<td>{shown(row.draft)}</td>
						<td>{row.seen ? signed(row.drape - row.draft) : 'alike'}</td>
					</tr>
					{#if row.learns.length}
						<tr class="ways">
							<td colspan="4">
								{#each row.learns as way, i (i)}
									<button class="button small" onclick={() => learn(way, row.what)}
										>{spoken(way.words)}</button
									>
								{/each}
							</td>
						</tr>
					{/if}
				{/each}
			</tbody>
		</table>
		<p class="soft">
			A button changes {found.value.garment}, as its own step: it is undone there. Nothing is changed by
			itself. A drape with another ease than the draft differs by that.
		</p>
	{:else}
		<p class="soft">Nothing differs by more than pencil and pins are off.</p>
	{/if}
	<label class="all"><input type="checkbox" bind:checked={all} /> What agrees as well</label>
{/if}

<style>
	label {
		display: block;
		margin-top: 0.3rem;
	}
	select {
		width: 100%;
	}
	.soft {
		margin: 0.3rem 0;
	}
	.ways td {
		text-align: left;
		padding-bottom: 0.4rem;
		border-bottom: 1px solid var(--rule);
	}
	.seen th {
		font-weight: 600;
	}
	.all {
		display: flex;
		gap: 0.4rem;
		align-items: baseline;
	}
</style>
