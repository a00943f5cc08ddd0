<!-- Fit: the muslin on the table. What it shows, what the paper change is, the old line under the new, and did it help. -->
<script lang="ts">
	import {
		api,
		type Applies,
		type BodyDrawing,
		type Finding,
		type Muslin,
		type Piece,
		type Worked,
	} from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { withRemedy } from '../../lib/desk/recipe';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import type { Subject } from '../../lib/table/picking';
	import Table from '../../lib/table/Table.svelte';
	import type { Marking } from '../../lib/table/view';
	import { moment, pencil } from '../../lib/words';
	import { searchParams } from 'sv-router';
	import BodyFigure from './BodyFigure.svelte';
	import FindingForm from './FindingForm.svelte';
	import FindingList from './FindingList.svelte';
	import { applicable } from './kinds';
	import Guide from './Guide.svelte';
	import KindList from './KindList.svelte';
	import type { Laid } from './laid';
	import Legend from './Legend.svelte';
	import Moves from './Moves.svelte';
	import Papers from './Papers.svelte';
	import Prepare from './Prepare.svelte';
	import RoundForm from './RoundForm.svelte';
	import RoundPlan from './RoundPlan.svelte';

	const desk = getDesk();
	desk.begin();

	const rounds = $derived(desk.job?.rounds ?? []);
	const open = $derived(rounds.find((r) => !r.closed) ?? null);
	let looked = $state<number | null>(null);
	/** Whose as-cut lines lie under the new ones: the one chosen, else the muslin on the table, else the last. */
	const round = $derived(rounds.find((r) => r.number === looked) ?? open ?? rounds.at(-1) ?? null);
	const number = $derived(round?.number ?? null);

	const under = $derived((desk.trial.preview?.against?.pieces ?? []) as Piece[]);
	let chosen = $state<string | null>(null);
	let trying = $state(false);
	let pointed = $state<string[]>([]);

	let laid = $state.raw<Laid[]>([]);
	let marking = $state.raw<Marking | null>(null);
	const layers = $derived([
		{ pieces: under, pencil: number ? pencil(number) : undefined },
		...laid.map(({ trial, pencil }) => ({ pieces: trial.pieces, pencil })),
	]);

	$effect(() => desk.trial.look({ against: number }));

	const drawing = desk.reads<BodyDrawing>();
	const figure = $derived(drawing.value);
	$effect(() => {
		const sheet = desk.job?.sheet.id;
		if (sheet === undefined) return;
		void drawing.load(api.GET('/api/sheets/{sheet_id}/figure', { params: { path: { sheet_id: sheet } } }));
	});
	const applies = desk.reads<Applies[]>();
	$effect(() => {
		const job = desk.job;
		if (!job) return;
		void applies.load(api.GET('/api/jobs/{job_id}/findings', { params: { path: { job_id: job.id } } }));
	});
	const prepared = desk.reads<Muslin>();
	$effect(() => {
		const job = desk.job;
		if (!job) return;
		void prepared.load(api.GET('/api/jobs/{job_id}/muslin', { params: { path: { job_id: job.id } } }));
	});
	/** The open muslin, or the next one, before it is fitted. */
	const muslin = $derived(prepared.value);
	/** Where the guided fitting stands, or that sheets are laid over each other; none on the page itself. */
	const mode = $derived(String(searchParams.get('guide') ?? ''));

	function leaveTo(): void {
		for (const name of ['guide', 'under', 'over']) searchParams.delete(name);
	}

	const kinds = $derived(applicable(shelf.all?.findings ?? [], applies.value ?? []));
	/** Kinds that have a place on the body; where a line was marked anew says the line. */
	const seated = $derived(kinds.filter((one) => !one.marks));
	const kind = $derived(kinds.find((k) => k.key === chosen) ?? null);
	const asked = $derived(applies.value?.find((one) => one.key === chosen)?.inputs ?? []);
	/** What was pointed at on the table: findings that can lie there are offered. */
	let at = $state.raw<Subject | null>(null);
	/** The finding that is set right. */
	let before = $state.raw<Finding | null>(null);
	const moves = $derived(desk.trial.preview?.against?.moves ?? []);
	const findings = $derived(round?.findings ?? []);

	function tryRemedy(way: Worked | null): void {
		if (!desk.job) return;
		trying = way !== null;
		if (way === null) desk.leave();
		else desk.trial.try(withRemedy(desk.job.recipe, way, before?.steps));
	}

	function choose(key: string): void {
		tryRemedy(null);
		chosen = key;
	}

	async function recorded(): Promise<void> {
		chosen = null;
		before = null;
		at = null;
		spotted = null;
		trying = false;
	}

	/** The kinds that lie at the spot of the figure that was pointed at; all where none was. */
	let spotted = $state.raw<string[] | null>(null);

	function spot(found: string[]): void {
		if (!round || round.closed) return;
		if (found.length === 1) return begin(found[0]!);
		tryRemedy(null);
		chosen = before = at = null;
		spotted = found;
	}

	function begin(key: string): void {
		before = null;
		choose(key);
	}

	function reopen(finding: Finding): void {
		before = finding;
		choose(finding.kind);
	}

	function point(subject: Subject): void {
		if (!round || round.closed || (chosen && !kind?.marks)) return;
		at = subject;
		spotted = null;
	}
</script>

{#if mode === 'papers'}
	<Papers onleave={() => leaveTo()} />
{:else if mode && open && muslin}
	<Guide
		{muslin}
		round={open}
		kinds={seated}
		asked={new Map((applies.value ?? []).map((one) => [one.key, one.inputs]))}
		{figure}
		place={mode}
		ongo={(place) => searchParams.set('guide', place)}
		onleave={() => leaveTo()}
	/>
{:else}
	<div class="fit">
		<section class="left" aria-label="The muslin">
			{#if rounds.length > 1}
				<div class="rounds" role="group" aria-label="Muslins">
					{#each rounds as r (r.number)}
						<button
							class="button small"
							aria-pressed={r.number === number}
							style:border-color={pencil(r.number)}
							onclick={() => (looked = r.number)}
						>
							<span class="lead" style:background={pencil(r.number)}></span>
							Muslin {r.number}{r.closed ? '' : ' (open)'}
						</button>
					{/each}
				</div>
			{/if}
			<div class="modes">
				{#if open}
					<button
						class="button small"
						onclick={() => searchParams.set('guide', open.watched.length ? 'move:stand' : 'prepare')}
						>Fit with busy hands</button
					>
				{/if}
				{#if rounds.length}
					<button class="button small" onclick={() => searchParams.set('guide', 'papers')}
						>Tracing paper</button
					>
				{/if}
			</div>
			{#if round}
				<h2>Muslin {round.number}</h2>
				<p class="soft">
					cut {moment(round.opened)}{round.cloth ? `, ${round.cloth}` : ''}{round.closed
						? `; closed ${moment(round.closed)}`
						: ''}
				</p>
				{#if round.note}<p class="said">“{round.note}”</p>{/if}
				{#if muslin && round.number === muslin.number && open}<Prepare {muslin} round={open} />{/if}
				<div class="figures-row">
					{#if figure}
						<BodyFigure {figure} view="front" kinds={seated} {findings} {chosen} onspot={spot} />
						<BodyFigure {figure} view="back" kinds={seated} {findings} {chosen} onspot={spot} />
					{/if}
				</div>
				<FindingList {round} editable={!round.closed} onreopen={reopen} />
				{#if round.findings.length}<RoundPlan {round} />{/if}
			{/if}
			{#if muslin && !open}<Prepare {muslin} round={null} />{/if}
			<RoundForm {open} />
			{#each muslin?.cautions ?? [] as caution (caution)}<p class="soft">{caution}</p>{/each}
		</section>
		<section class="laid" aria-label="Old line under new">
			<Table
				pieces={desk.trial.pieces}
				under={layers}
				lit={new Set(pointed)}
				{marking}
				onpick={round && !round.closed ? point : null}
				still={chosen !== null}
				label="The pattern with the lines as cut under it"
			/>
			{#if number}
				<Legend
					top={trying ? 'as it would become' : 'now'}
					under={[
						{ title: `as cut for muslin ${number}`, pencil: pencil(number) },
						...laid.map(({ title, pencil }) => ({ title: title.toLowerCase(), pencil })),
					]}
				/>
			{/if}
		</section>
		<section class="right" aria-label="Finding and remedy">
			{#if kind && round && !round.closed}
				{#key `${kind.key} ${before?.uid ?? ''}`}
					<FindingForm
						{kind}
						round={round.number}
						{kinds}
						{asked}
						{before}
						{at}
						ontry={tryRemedy}
						onmarking={(shown) => (marking = shown)}
						onlay={(shown) => (laid = shown)}
						onchoose={choose}
						ondone={recorded}
					/>
				{/key}
			{:else if round && !round.closed}
				<KindList
					kinds={spotted ? kinds.filter((one) => spotted!.includes(one.key)) : kinds}
					pieces={desk.trial.pieces}
					{at}
					narrowed={at !== null || spotted !== null}
					onchoose={begin}
					onleave={() => (at = spotted = null)}
				/>
			{/if}
			{#if number}
				<h2>What moved since muslin {number} was cut</h2>
				{#if moves.length}
					<Moves {moves} onpoint={(lines) => (pointed = lines)} />
				{:else}
					<p class="soft">Nothing: the pattern is as it was cut.</p>
				{/if}
			{/if}
		</section>
	</div>
{/if}

<style>
	.fit {
		display: grid;
		grid-template-columns: 20rem 1fr 21.5rem;
		grid-template-rows: minmax(0, 1fr);
		height: 100%;
		min-height: 0;
	}
	.left,
	.right {
		overflow: auto;
		padding: 0.7rem 0.9rem;
	}
	.left {
		border-right: 1px solid var(--rule);
	}
	.right {
		border-left: 1px solid var(--rule);
	}
	.laid {
		position: relative;
		min-height: 20rem;
	}
	h2 {
		font-size: 1.1rem;
		margin: 0.4rem 0 0.2rem;
	}
	.soft {
		margin: 0.2rem 0;
	}
	.said {
		font-family: 'Literata Variable', serif;
		font-style: italic;
		margin: 0.2rem 0;
	}
	.figures-row {
		display: flex;
	}
	.rounds,
	.modes {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem;
	}
	.modes {
		margin: 0.4rem 0;
	}
	.rounds [aria-pressed='true'] {
		background: var(--chalk-soft);
		font-weight: 600;
	}
	.lead {
		width: 0.7rem;
		height: 0.7rem;
		border-radius: 50%;
	}
	@media (max-width: 1000px) {
		.fit {
			grid-template-columns: 1fr 1fr;
			grid-template-rows: 50% 50%;
		}
		.laid {
			grid-column: 1 / 3;
			grid-row: 1;
		}
	}
</style>
