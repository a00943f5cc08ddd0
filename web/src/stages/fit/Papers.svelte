<!-- Tracing paper: two states of the job over each other, held where the maker wants; the distances, the longest first. -->
<script lang="ts">
	import { searchParams } from 'sv-router';
	import { api, type Held, type Papers, type Plan, type Sheet } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { typedInto } from '../../lib/parts/keys';
	import TableAndPanel from '../../lib/parts/TableAndPanel.svelte';
	import Table from '../../lib/table/Table.svelte';
	import { spoken } from '../../lib/units.svelte';
	import { lineName, pencil } from '../../lib/words';
	import Moves from './Moves.svelte';
	import Stroke from './Stroke.svelte';
	import {
		askedFor,
		cornerName,
		cornersOf,
		grouped,
		linesAt,
		NOW,
		papersOf,
		PENCIL_WIDTH,
		turned,
		type Paper,
	} from './papers';

	let { onleave }: { onleave: () => void } = $props();

	const desk = getDesk();
	const job = $derived(desk.job!);
	const sheets = desk.reads<Sheet[]>();
	$effect(() => {
		void sheets.load(
			api.GET('/api/wearers/{wearer_id}/sheets', { params: { path: { wearer_id: job.wearer.id } } }),
		);
	});
	/** The last muslin that showed something: the remedies of that can be laid over each other as trials. */
	const round = $derived(job.rounds.filter((one) => one.findings.length > 0).at(-1));
	const plan = desk.reads<Plan>();
	$effect(() => {
		if (!round) return;
		const path = { job_id: job.id, number: round.number };
		void plan.load(api.GET('/api/jobs/{job_id}/rounds/{number}/plan', { params: { path } }));
	});
	const all = $derived(
		papersOf(
			job,
			(sheets.value ?? []).map((sheet) => sheet.number).sort((a, b) => a - b),
			plan.value?.order,
		),
	);
	const under = $derived(String(searchParams.get('under') || (all[0]?.name ?? NOW)));
	const over = $derived(String(searchParams.get('over') || (under === NOW ? (all[0]?.name ?? NOW) : NOW)));
	const paper = (name: string) => all.find((one) => one.name === name);
	const title = (name: string) => paper(name)?.title ?? name;
	const colour = $derived(pencil(paper(under)?.muslin ?? 4));

	let piece = $state('');
	let corner = $state('');
	let line = $state('');
	const held = $derived<Held | null>(piece && corner && line ? { piece, corner, line } : null);

	const laid = desk.reads<Papers>();
	$effect(() => {
		// Worked again whenever the job has moved on.
		void job.version;
		const body = { under: askedFor(under), over: askedFor(over), held };
		void laid.load(api.POST('/api/jobs/{job_id}/papers', { params: { path: { job_id: job.id } }, body }));
	});
	const found = $derived(laid.value);
	const pieces = $derived(found?.over.pieces ?? []);
	const apart = $derived((found?.moves ?? []).filter((move) => !move.leg && move.distance > PENCIL_WIDTH));
	const here = $derived(pieces.find((one) => one.name === piece));
	let pointed = $state<string[]>([]);
	/** The sheet of measures that is laid under or over: it can be taken from here. */
	const measured = $derived([under, over].map((name) => askedFor(name).sheet).find(Boolean));

	function set(which: 'under' | 'over', name: string): void {
		searchParams.set(which, name);
	}

	function hold(name: string): void {
		piece = name;
		corner = cornersOf(pieces.find((one) => one.name === name))[0] ?? '';
		line = linesAt(
			pieces.find((one) => one.name === name),
			corner,
		)[0]!;
	}

	function pin(name: string): void {
		corner = name;
		line = linesAt(here, name)[0]!;
	}

	function letGo(): void {
		piece = corner = line = '';
	}

	async function take(): Promise<void> {
		const sheet = sheets.value?.find((one) => one.number === measured);
		if (sheet && (await desk.deeds.draftFrom(sheet))) onleave();
	}

	const STEPS: Record<string, ['under' | 'over', number]> = {
		'[': ['under', -1],
		']': ['under', 1],
		'{': ['over', -1],
		'}': ['over', 1],
	};

	function key(event: KeyboardEvent): void {
		const target = event.target as HTMLElement;
		if (typedInto(target) || target.closest('[role="dialog"]') || event.ctrlKey || event.metaKey) return;
		const step = STEPS[event.key];
		if (step) {
			const [which, by] = step;
			set(which, which === 'under' ? turned(all, under, by, over) : turned(all, over, by, under));
		} else if (event.key === 'Escape') onleave();
	}
</script>

{#snippet sheetsBut(other: string)}
	{#each grouped(all) as [group, papers] (group)}
		{#if group}
			<optgroup label={group}>{@render choices(papers, other)}</optgroup>
		{:else}
			{@render choices(papers, other)}
		{/if}
	{/each}
{/snippet}

{#snippet choices(papers: Paper[], other: string)}
	{#each papers as one (one.name)}
		<option value={one.name} disabled={one.name === other}>{one.title}</option>
	{/each}
{/snippet}

<svelte:window onkeydown={key} />
<TableAndPanel problem={null}>
	{#snippet table()}
		<Table
			{pieces}
			under={[{ pieces: found?.under.pieces ?? [], pencil: colour }]}
			lit={new Set(pointed)}
			label="{title(over)}, laid over {title(under)}"
		/>
	{/snippet}
	{#snippet panel()}
		<h2>Tracing paper</h2>
		<label
			><span class="soft">Under <Stroke pencil={colour} /> <kbd>[</kbd> <kbd>]</kbd></span>
			<select class="field" value={under} onchange={(e) => set('under', e.currentTarget.value)}>
				{@render sheetsBut(over)}
			</select>
		</label>
		<label
			><span class="soft">Over <Stroke /> <kbd>&#123;</kbd> <kbd>&#125;</kbd></span>
			<select class="field" value={over} onchange={(e) => set('over', e.currentTarget.value)}>
				{@render sheetsBut(under)}
			</select>
		</label>
		<div class="held">
			<label
				><span class="soft">Held on the</span>
				<select class="field" value={piece} onchange={(e) => hold(e.currentTarget.value)}>
					<option value="">table, as drafted</option>
					{#each pieces as one (one.name)}<option value={one.name}>{one.title.toLowerCase()}</option>{/each}
				</select>
			</label>
			{#if here}
				<label
					><span class="soft">pinned at</span>
					<select class="field" value={corner} onchange={(e) => pin(e.currentTarget.value)}>
						{#each cornersOf(here) as one (one)}<option value={one}>{cornerName(here, one, lineName)}</option
							>{/each}
					</select>
				</label>
				<label
					><span class="soft">along the</span>
					<select class="field" bind:value={line}>
						{#each linesAt(here, corner) as one (one)}<option value={one}>{lineName(one)}</option>{/each}
					</select>
				</label>
				<button class="button small" onclick={letGo}>Let go</button>
			{/if}
		</div>
		{#if found}
			{#each [...found.under.skipped, ...found.over.skipped] as words (words)}
				<p class="note wrong">Skipped. {spoken(words)}</p>
			{/each}
			<h3>{apart.length ? 'How far the lines lie apart' : 'Every line lies on itself.'}</h3>
			{#if apart.length}
				<Moves moves={apart} onpoint={(lines) => (pointed = lines)} />
			{/if}
		{:else}
			<p class="soft" role="status">Laying the sheets over each other…</p>
		{/if}
		<div class="deeds">
			{#if measured}
				<button class="button main" disabled={desk.deeds.busy} onclick={take}
					>Draft from sheet {measured}</button
				>
			{/if}
			<button class="button" onclick={onleave}>Lift the sheets <kbd>Esc</kbd></button>
		</div>
	{/snippet}
</TableAndPanel>

<style>
	h2 {
		font-size: 1.1rem;
		margin: 0.2rem 0;
	}
	h3 {
		font-size: 1rem;
		margin: 0.8rem 0 0.2rem;
	}
	label {
		display: block;
		margin: 0.35rem 0;
	}
	select {
		width: 100%;
	}
	.held {
		padding-left: 0.6rem;
		border-left: 2px solid var(--rule);
	}
	.deeds {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		margin: 0.8rem 0;
	}
	kbd {
		font-family: inherit;
		padding: 0 0.3rem;
		border: 1px solid var(--rule);
		border-radius: 4px;
		font-size: 0.85rem;
	}
</style>
