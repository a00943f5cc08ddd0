<!-- The story of the job, by muslin: what was seen, what was changed, by how much, why; with its photos, hours and forecast. -->
<script lang="ts">
	import { api, type Story } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { reading, shown, spoken } from '../../lib/units.svelte';
	import { day, hours, lineName, moment, pencil } from '../../lib/words';

	const desk = getDesk();
	desk.begin();
	const told = desk.reads<Story>();
	$effect(() => {
		const job = desk.job;
		if (!job) return;
		void job.version;
		void told.load(api.GET('/api/jobs/{job_id}/story', { params: { path: { job_id: job.id } } }));
	});
	const story = $derived(told.value?.story ?? null);

	function paper(kind: string): string {
		return `/api/jobs/${desk.job!.id}/story.pdf?paper=${kind}&unit=${reading.unit}`;
	}
</script>

<div class="story">
	{#if story}
		<header>
			<h2>The story of “{story.garment}”</h2>
			<p class="soft">
				For {story.wearer}{story.due ? `, due ${day(story.due)}` : ''}. {story.minutes
					? `${hours(story.minutes)} of work noted.`
					: 'No hours noted yet.'}
				Print it: <a href={paper('a4')} download>A4</a> · <a href={paper('letter')} download>Letter</a>
			</p>
			{#each told.value?.forecast ?? [] as words (words)}<p>{spoken(words)}</p>{/each}
		</header>
		{#if story.before.length}
			<section>
				<h3>Before the first muslin</h3>
				{#each story.before as change (change.at + change.why)}
					<p><span class="when figures">{moment(change.at)}</span> {spoken(change.why)}</p>
				{/each}
			</section>
		{/if}
		{#each story.rounds as round (round.number)}
			<section style:border-color={pencil(round.number)}>
				<h3><span class="lead" style:background={pencil(round.number)}></span> Muslin {round.number}</h3>
				<p class="soft">
					cut {moment(round.opened)}{round.cloth ? ` in ${round.cloth}` : ''}{round.worn
						? `, worn over ${round.worn}`
						: ''}{round.closed ? `; closed ${moment(round.closed)}` : '; still on the table'}{round.minutes
						? `; ${hours(round.minutes)}`
						: ''}{round.pins ? `; ${round.pins}` : ''}
				</p>
				{#if round.note}<p class="said">“{round.note}”</p>{/if}
				{#each round.findings as finding (finding.seen + finding.half)}
					<article>
						<h4>{finding.seen}</h4>
						<p class="soft">
							{[finding.half, ...finding.amounts.map((words) => spoken(words)), finding.movement]
								.filter(Boolean)
								.join('; ')}
						</p>
						{#if finding.words}<p class="said">“{finding.words}”</p>{/if}
						{#each finding.done as words (words)}<p>{spoken(words)}</p>{/each}
						{#if finding.left}<p class="soft">{spoken(finding.left)}</p>{/if}
						{#each finding.proved as [number, outcome] (number)}
							<p class="soft">
								<span class="lead" style:background={pencil(number)}></span> muslin {number}: {outcome}
							</p>
						{/each}
						{#if finding.photos.length}
							<div class="photos">
								{#each finding.photos as photo, i (photo)}
									<img src="/api/photos/{photo}" alt="Photo {i + 1} of: {finding.seen}" loading="lazy" />
								{/each}
							</div>
						{/if}
					</article>
				{:else}
					<p class="soft">Nothing was found on it.</p>
				{/each}
				{#each round.changes as change (change.at + change.why)}
					<p><span class="when figures">{moment(change.at)}</span> {spoken(change.why)}</p>
				{/each}
				{#if round.moved.length}
					<p class="soft">
						Moved most since it was cut: {round.moved
							.map((one) => `${lineName(spoken(one.line))} ${shown(one.distance)}`)
							.join(', ')}.
					</p>
				{/if}
			</section>
		{:else}
			<p class="soft">No muslin has been cut yet.</p>
		{/each}
	{:else}
		<p class="soft" role="status">Reading the story…</p>
	{/if}
</div>

<style>
	header a {
		text-decoration: underline;
	}
	.story {
		height: 100%;
		overflow: auto;
		padding: 1rem 1.6rem 2rem;
		max-width: 62rem;
		margin: 0 auto;
	}
	h2 {
		font-size: 1.5rem;
		margin: 0 0 0.2rem;
	}
	section {
		margin: 1rem 0;
		padding-left: 0.9rem;
		border-left: 3px solid var(--rule);
	}
	h3 {
		font-size: 1.2rem;
		margin: 0 0 0.2rem;
	}
	h4 {
		margin: 0;
		font-weight: 600;
	}
	article {
		margin: 0.6rem 0;
	}
	p {
		margin: 0.15rem 0;
	}
	.soft,
	.when {
		color: var(--ink-soft);
		font-size: 0.95rem;
	}
	.said {
		font-family: 'Literata Variable', serif;
		font-style: italic;
	}
	.lead {
		display: inline-block;
		width: 0.75rem;
		height: 0.75rem;
		border-radius: 50%;
	}
	.photos {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
		margin: 0.4rem 0;
	}
	.photos img {
		height: 9rem;
		border: 1px solid var(--rule);
	}
</style>
