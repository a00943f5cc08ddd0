<!-- A job: its head, the stages in working order as marks on a tape, and the story beneath them all. -->
<script lang="ts">
	import { Redo2, Undo2 } from '@lucide/svelte';
	import type { Snippet } from 'svelte';
	import { setDesk } from '../lib/desk/context';
	import { Desk } from '../lib/desk/desk.svelte';
	import Hours from '../lib/parts/Hours.svelte';
	import Head from '../lib/parts/Head.svelte';
	import { blocksOf } from '../lib/desk/recipe';
	import { typedInto } from '../lib/parts/keys';
	import ProblemNote from '../lib/parts/ProblemNote.svelte';
	import { spoken } from '../lib/units.svelte';
	import { day, moment } from '../lib/words';
	import { navigate, p, route } from '../router';

	let { children }: { children: Snippet } = $props();

	const desk = setDesk(new Desk());
	let story = $state(false);

	const id = $derived((route.params as { job?: string }).job ?? '');
	$effect(() => {
		if (id && desk.job?.id !== id) void desk.deeds.open(id);
	});

	const STAGES = [
		{ path: '/jobs/:job/measure', name: 'Measure' },
		{ path: '/jobs/:job/draft', name: 'Draft' },
		{ path: '/jobs/:job/style', name: 'Style' },
		{ path: '/jobs/:job/check', name: 'Check' },
		{ path: '/jobs/:job/fit', name: 'Fit' },
		{ path: '/jobs/:job/drape', name: 'Drape' },
		{ path: '/jobs/:job/cut', name: 'Cut' },
	] as const;

	const openRound = $derived(desk.job?.rounds.find((r) => !r.closed));
	const failing = $derived(desk.trial.preview?.checks.filter((c) => c.verdict === 'fails').length ?? 0);
	const odd = $derived(desk.trial.preview?.checks.filter((c) => c.verdict === 'warns').length ?? 0);
	const steps = $derived(desk.job?.recipe.steps?.length ?? 0);
	/** What was draped, wrapped or traced, or that a session is being prepared. */
	const drape = $derived.by(() => {
		const panels = desk.job?.recipe.given.panels.length ?? 0;
		const queries =
			desk.trial.preview?.given?.panels.reduce((sum, panel) => sum + panel.queries.length, 0) ?? 0;
		if (!panels) return desk.job?.on_form.drape ? 'in preparation' : 'nothing draped';
		return `${panels} ${panels === 1 ? 'panel' : 'panels'}${queries ? `, ${queries} to look at` : ''}`;
	});
	const states = $derived([
		`sheet ${desk.job?.sheet.number ?? ''}`,
		desk.trial.problem ? 'no draft' : desk.job && !blocksOf(desk.job.recipe).length ? 'no block' : 'drafted',
		steps
			? `${steps} ${steps === 1 ? 'step' : 'steps'}`
			: desk.job && !blocksOf(desk.job.recipe).length
				? 'as given'
				: 'the block',
		failing ? `${failing} failing` : odd ? `${odd} to look at` : 'all agrees',
		openRound ? `muslin ${openRound.number} open` : desk.job?.rounds.length ? 'closed' : 'no muslin yet',
		drape,
		desk.trial.preview?.stages.some((s) => s.failure) ? 'a step is skipped' : 'ready',
	]);
	const last = $derived(desk.job?.log.at(-1));

	function key(event: KeyboardEvent): void {
		const target = event.target as HTMLElement;
		if (typedInto(target) || target.closest('[role="dialog"]')) return;
		if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
			event.preventDefault();
			void desk.deeds.move(event.shiftKey ? 'redo' : 'undo');
			return;
		}
		if (event.ctrlKey || event.metaKey || event.altKey) return;
		const stage = STAGES[Number(event.key) - 1];
		if (stage) void navigate(stage.path, { params: { job: id } });
		else if (event.key.toLowerCase() === 'b') void navigate('/');
		else if (event.key.toLowerCase() === 'l') story = !story;
	}
</script>

<svelte:window onkeydown={key} />
<svelte:head><title>{desk.job ? `${desk.job.garment} · Izett` : 'Izett'}</title></svelte:head>

<div class="frame">
	<Head>
		{#if desk.job}
			<div class="job">
				<h1>{desk.job.garment}</h1>
				<span>for {desk.job.wearer.name}{desk.job.due ? `, due ${day(desk.job.due)}` : ''}</span>
				<span class="deeds">
					<button
						class="button small"
						disabled={!desk.job.can_undo || desk.deeds.busy}
						onclick={() => desk.deeds.move('undo')}
						title={desk.job.can_undo ? `Undo: ${spoken(desk.job.undo_words)}` : 'Nothing to undo'}
						aria-label="Undo"><Undo2 size={17} /></button
					>
					<button
						class="button small"
						disabled={!desk.job.can_redo || desk.deeds.busy}
						onclick={() => desk.deeds.move('redo')}
						title={desk.job.can_redo ? `Redo: ${spoken(desk.job.redo_words)}` : 'Nothing to redo'}
						aria-label="Redo"><Redo2 size={17} /></button
					>
				</span>
			</div>
		{/if}
	</Head>
	<nav aria-label="Stages">
		{#each STAGES as stage, i (stage.path)}
			{@const href = stage.path.replace(':job', id)}
			<a {href} aria-current={route.pathname === href ? 'page' : undefined}>
				<span class="stage">{stage.name}</span> <span class="state">{desk.job ? states[i] : ''}</span>
			</a>
		{/each}
	</nav>
	{#if desk.problem}
		<div class="problem">
			<ProblemNote problem={desk.problem}>
				{#if desk.problem.code === 'job-changed'}
					<button class="button small main" onclick={() => desk.again()}>
						Make my change on the newer state: {desk.deeds.unfinished}
					</button>
					<button class="button small" onclick={() => desk.deeds.letGo()}>Only show the newer state</button>
				{:else if desk.problem.passing}
					<button class="button small main" onclick={() => desk.again()}>
						{desk.deeds.unfinished ? `Do it again: ${desk.deeds.unfinished}` : 'Try again'}
					</button>
					{#if desk.deeds.unfinished}
						<button class="button small" onclick={() => desk.deeds.letGo()}>Let it go</button>
					{/if}
				{:else}
					<button class="button small" onclick={() => desk.understood()}>Understood</button>
				{/if}
			</ProblemNote>
		</div>
	{/if}
	<main>
		{#if desk.job}
			{@render children()}
		{:else if !desk.problem}
			<p class="loading" role="status">Laying out the job…</p>
		{:else if !desk.problem.offline}
			<p class="loading"><a href={p('/')}>Back to the bench</a></p>
		{/if}
	</main>
	<footer>
		<button
			class="line"
			onclick={() => (story = !story)}
			aria-expanded={story}
			title="The story of the job (L)"
		>
			<span class="head">Story</span>
			{#if last}<span class="when figures">{moment(last.at)}</span>
				<span class="what">{spoken(last.text)}</span>{/if}
			{#if desk.job?.clock}<span class="clock">the clock runs</span>{/if}
			<span class="saved" role="status"
				>{desk.deeds.busy ? 'saving…' : desk.saved ? 'saved' : 'trying, not kept yet'}</span
			>
		</button>
		{#if story && desk.job}
			<Hours />
			<p class="whole">
				<a href={p('/jobs/:job/story', { params: { job: id } })}>The whole story, by muslin</a>
			</p>
			<ol>
				<!-- The newest line stands above already. -->
				{#each [...desk.job.log].reverse().slice(1) as entry, i (i)}
					<li><span class="when figures">{moment(entry.at)}</span> {spoken(entry.text)}</li>
				{/each}
			</ol>
		{/if}
	</footer>
</div>

<style>
	.whole a {
		text-decoration: underline;
	}
	.frame {
		height: 100%;
		display: flex;
		flex-direction: column;
	}
	.job {
		display: flex;
		align-items: center;
		gap: 0.8rem;
		min-width: 0;
	}
	h1 {
		font-size: 1.15rem;
		margin: 0;
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.job span {
		color: var(--ink-soft);
		white-space: nowrap;
	}
	.deeds {
		display: flex;
		gap: 0.3rem;
	}
	nav {
		display: flex;
		border-bottom: 1px solid var(--rule);
		background: var(--paper);
		/* the stages are marks on a tape */
		background-image: repeating-linear-gradient(to right, var(--rule) 0 1px, transparent 1px 12px);
		background-size: 100% 6px;
		background-repeat: no-repeat;
		background-position: bottom;
	}
	nav a {
		flex: 1;
		padding: 0.35rem 1.1rem 0.6rem;
		color: var(--ink);
		text-decoration: none;
		border-right: 1px solid var(--rule);
		border-bottom: 3px solid transparent;
	}
	nav a[aria-current='page'] {
		background: var(--chalk-soft);
		border-bottom-color: var(--chalk);
	}
	.stage {
		font-weight: 600;
	}
	.state {
		color: var(--ink-soft);
		font-size: 0.9rem;
		margin-left: 0.4rem;
	}
	.problem {
		padding: 0.5rem 1.1rem;
	}
	main {
		flex: 1;
		min-height: 0;
	}
	@media (max-width: 900px), (max-height: 520px) {
		.frame {
			height: auto;
			min-height: 100%;
		}
		nav {
			flex-wrap: wrap;
		}
		nav a {
			flex: 1 0 30%;
			padding: 0.35rem 0.6rem;
		}
		.job {
			flex-wrap: wrap;
			gap: 0.2rem 0.6rem;
		}
	}
	.loading {
		padding: 2rem;
		color: var(--ink-soft);
	}
	footer {
		border-top: 1px solid var(--rule);
		background: var(--paper);
	}
	.line {
		display: flex;
		width: 100%;
		gap: 0.8rem;
		padding: 0.3rem 1.1rem;
		text-align: left;
		cursor: pointer;
	}
	.head {
		font-weight: 600;
	}
	.what {
		flex: 1;
		overflow: hidden;
		white-space: nowrap;
		text-overflow: ellipsis;
	}
	.when,
	.saved {
		color: var(--ink-soft);
	}
	.saved {
		margin-left: auto;
	}
	.clock {
		color: var(--chalk);
	}
	ol {
		margin: 0;
		padding: 0.2rem 1.1rem 0.8rem;
		max-height: 34vh;
		overflow: auto;
		list-style: none;
	}
	li {
		padding: 0.15rem 0;
	}
	.whole {
		margin: 0;
		padding: 0 1.1rem;
	}
</style>
