<!-- The bench: jobs as tickets, each with where it stands and what is waiting. -->
<script lang="ts">
	import { answered, api, asProblem, type Problem, type Ticket } from '../../lib/api/client';
	import { Loaded } from '../../lib/api/loaded.svelte';
	import DeleteForGood from '../../lib/parts/DeleteForGood.svelte';
	import Head from '../../lib/parts/Head.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { spoken } from '../../lib/units.svelte';
	import { day } from '../../lib/words';
	import { navigate, p } from '../../router';
	import Keeping from './Keeping.svelte';

	const bench = new Loaded<Ticket[]>();
	const tickets = $derived(bench.value);
	let refused = $state<Problem | null>(null);
	const problem = $derived(refused ?? bench.problem);
	let bringing = $state(false);

	async function load(): Promise<void> {
		refused = null;
		await bench.load(api.GET('/api/bench'));
	}
	void load();

	const STAGE_PATH = {
		measure: '/jobs/:job/measure',
		draft: '/jobs/:job/draft',
		fit: '/jobs/:job/fit',
		cut: '/jobs/:job/cut',
	} as const;

	function path(ticket: Ticket): string {
		const stage = STAGE_PATH[ticket.stage as keyof typeof STAGE_PATH] ?? STAGE_PATH.draft;
		return p(stage, { params: { job: ticket.id } });
	}

	function daysLeft(due: string): number {
		return Math.round((Date.parse(due) - Date.now()) / 86_400_000);
	}

	async function bringIn(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
		const file = event.currentTarget.files?.[0];
		event.currentTarget.value = '';
		if (!file) return;
		bringing = true;
		const body = new FormData();
		body.append('file', file);
		try {
			const job = await answered(
				api.POST('/api/jobs/import', { body: body as never, bodySerializer: (form) => form as never }),
			);
			await navigate('/jobs/:job/draft', { params: { job: job.id } });
		} catch (error) {
			refused = asProblem(error);
		} finally {
			bringing = false;
		}
	}
</script>

{#snippet face(ticket: Ticket)}
	<span class="string" aria-hidden="true"></span>
	<span class="who">
		<span class="garment">{ticket.garment}</span>
		<span>for {ticket.wearer}</span>
	</span>
	<span class="standing">
		<strong>{ticket.standing}</strong>
		<span class="touched">last worked on {day(ticket.touched)}</span>
	</span>
	<span class="waiting">
		{#if ticket.trouble}
			<span class="why">{ticket.trouble} The other tickets are not touched by that.</span>
			<a class="button small" href={`/api/jobs/${ticket.id}/export`} download>Carry it out as it is</a>
		{:else}
			{#each ticket.waiting as thing (thing)}<span>{spoken(thing)}</span>{/each}
		{/if}
	</span>
	<span class="due figures">
		{#if ticket.due}
			{@const left = daysLeft(ticket.due)}
			<strong>{day(ticket.due)}</strong>
			<span class:late={left < 7}>{left >= 0 ? `${left} days left` : `${-left} days over`}</span>
		{:else}<span>no date set</span>{/if}
	</span>
{/snippet}

<svelte:head><title>Bench · Izett</title></svelte:head>
<Head />
<main>
	<div class="top">
		<h1>On the bench</h1>
		<a class="button main" href={p('/new')}>New ticket</a>
		<a class="button" href={p('/sizes')}>Size charts</a>
		<label class="button" class:busy={bringing}>
			Bring in a job file
			<input type="file" accept=".json,application/json" class="sr-only" onchange={bringIn} />
		</label>
	</div>
	{#if problem}
		<ProblemNote {problem}>
			<button class="button small" onclick={load}>{problem.passing ? 'Try again' : 'Understood'}</button>
		</ProblemNote>
	{/if}
	<Keeping />
	{#if tickets === null && !problem}
		<p class="quiet" role="status">Looking over the bench…</p>
	{:else if tickets?.length === 0}
		<section class="sheet empty">
			<h2>Nothing on the bench yet</h2>
			<p>A ticket is one garment for one wearer. Measure the wearer, and the block is drafted at once.</p>
			<a class="button main" href={p('/new')}>Write the first ticket</a>
		</section>
	{:else if tickets}
		<ul>
			{#each tickets as ticket (ticket.id)}
				<li>
					{#if ticket.trouble}
						<div class="ticket troubled">{@render face(ticket)}</div>
					{:else}
						<a class="ticket" href={path(ticket)}>{@render face(ticket)}</a>
					{/if}
					<span class="aside">
						<DeleteForGood
							what={`“${ticket.garment}”`}
							remove={() => api.DELETE('/api/jobs/{job_id}', { params: { path: { job_id: ticket.id } } })}
							ondone={load}
						>
							The garment for {ticket.wearer} with all its steps, muslins, findings and its story goes, overwritten
							on the disk. Nothing of it can be brought back, unless you have carried it out as a file. The wearer
							and the sheets of measures stay. Backups that were made before still have it.
						</DeleteForGood>
					</span>
				</li>
			{/each}
		</ul>
	{/if}
</main>

<style>
	main {
		max-width: 68rem;
		margin: 0 auto;
		padding: 1.6rem 1.2rem;
	}
	.top {
		display: flex;
		align-items: center;
		gap: 0.7rem;
		margin-bottom: 1.2rem;
	}
	h1 {
		flex: 1;
		font-size: 1.9rem;
		margin: 0;
	}
	.quiet {
		color: var(--ink-soft);
	}
	.empty {
		padding: 2rem;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
		display: grid;
		gap: 0.9rem;
	}
	li {
		position: relative;
		/* a clipped box cannot have a border of its own */
		filter: drop-shadow(0 0 0.6px var(--ink-soft)) drop-shadow(0 1px 1px rgb(0 0 0 / 0.08));
	}
	.ticket {
		display: grid;
		grid-template-columns: 2rem 1.35fr 1.1fr 1.4fr 8.5rem;
		gap: 1rem;
		align-items: center;
		padding: 1.1rem 4.2rem 1.1rem 0.9rem;
		background: var(--paper);
		color: var(--ink);
		text-decoration: none;
		/* a ticket with its corners cut and a hole for the string */
		clip-path: polygon(14px 0, 100% 0, 100% 100%, 14px 100%, 0 calc(100% - 14px), 0 14px);
	}
	.ticket:hover {
		background: var(--chalk-soft);
	}
	.ticket:focus-visible {
		outline-offset: -4px;
	}
	.string {
		width: 15px;
		height: 15px;
		border-radius: 50%;
		border: 1.5px solid var(--ink-soft);
		background: var(--color-surface-50);
		justify-self: center;
	}
	.ticket > span:not(.string) {
		display: flex;
		flex-direction: column;
		gap: 0.1rem;
	}
	.garment {
		font-family: 'Literata Variable', serif;
		font-size: 1.25rem;
	}
	.touched,
	.due span,
	.who span:last-child {
		color: var(--ink-soft);
	}
	.waiting span:not(.why)::before {
		content: '· ';
	}
	.why {
		color: var(--wax);
	}
	.troubled {
		border-left: 4px solid var(--wax);
	}
	.troubled:hover {
		background: var(--paper);
	}
	.waiting .button {
		align-self: flex-start;
		margin-top: 0.3rem;
	}
	.aside {
		position: absolute;
		right: 0.9rem;
		top: 50%;
		transform: translateY(-50%);
	}
	.due {
		text-align: right;
	}
	.due .late {
		color: var(--wax);
		font-weight: 600;
	}
	@media (max-width: 800px) {
		.ticket {
			grid-template-columns: 2rem 1fr 1fr;
		}
		.waiting {
			grid-column: 2 / 4;
		}
	}
</style>
