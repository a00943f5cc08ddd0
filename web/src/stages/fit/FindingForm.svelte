<!-- One finding: how much, where, in whose words; its remedies with their arithmetic, tried on the garment before they are applied. -->
<script lang="ts">
	import { onDestroy, untrack } from 'svelte';
	import {
		answered,
		api,
		asProblem,
		freshName,
		type Finding,
		type Half,
		type Kind,
		type LengthIn,
		type Marked,
		type Problem,
		type Worked,
	} from '../../lib/api/client';
	import { Latest } from '../../lib/api/latest';
	import { getDesk } from '../../lib/desk/context';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { withRemedy } from '../../lib/desk/recipe';
	import type { Trial } from '../../lib/desk/trial.svelte';
	import { PutAside } from '../../lib/desk/aside.svelte';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { allRead } from '../../lib/parts/reads';
	import type { Subject } from '../../lib/table/picking';
	import type { Marking } from '../../lib/table/view';
	import { lineName, pencil } from '../../lib/words';
	import type { Laid } from './laid';
	import NewLine from './NewLine.svelte';
	import Ways from './Ways.svelte';

	interface Props {
		kind: Kind;
		round: number;
		kinds: Kind[];
		/** Which of the amounts are asked for on this garment. */
		asked: readonly string[];
		/** The finding that is set right; none where a new one is recorded. */
		before: Finding | null;
		/** What was pointed at on the table. */
		at: Subject | null;
		ontry: (way: Worked | null) => void;
		/** Told of the marks that are typed. */
		onmarking: (marking: Marking | null) => void;
		/** Told of the remedies that are to be laid over each other. */
		onlay: (laid: Laid[]) => void;
		onchoose: (kind: string) => void;
		ondone: () => void;
	}
	let { kind, round, kinds, asked, before, at, ontry, onmarking, onlay, onchoose, ondone }: Props = $props();

	const desk = getDesk();
	const inputs = $derived(kind.inputs.filter((input) => asked.includes(input.symbol)));
	// svelte-ignore state_referenced_locally
	let amounts = $state<Record<string, number>>(
		Object.fromEntries(kind.inputs.map((i) => [i.symbol, before?.given[i.symbol] ?? i.default])),
	);
	// svelte-ignore state_referenced_locally
	let taken = $state<'whole' | 'pinch'>(before?.taken ?? 'whole');
	// svelte-ignore state_referenced_locally
	let counted = $state<'around' | 'each_side' | null>(
		before?.counted === 'around' || before?.counted === 'each_side' ? before.counted : null,
	);
	// svelte-ignore state_referenced_locally
	let side = $state<Half>((before?.side as Half) ?? (kind.one_half ? 'left' : 'both'));
	// svelte-ignore state_referenced_locally
	let movement = $state(before?.movement ?? kind.movement);
	// svelte-ignore state_referenced_locally
	let words = $state(before?.words ?? '');
	// svelte-ignore state_referenced_locally
	let why = $state(before?.normal || kind.normal);
	let ways = $state<Worked[]>([]);
	// svelte-ignore state_referenced_locally
	let remedy = $state<string | null>(before?.remedy || null);
	let problem = $state<Problem | null>(null);

	// svelte-ignore state_referenced_locally
	const uid = before?.uid ?? freshName('f');
	/** A finding that is not recorded yet has no name that outlives the page. */
	// svelte-ignore state_referenced_locally
	const known = before?.uid ?? 'new';
	const can = $derived(ways.filter((way) => !way.refused));
	const chosen = $derived(can.find((way) => way.key === remedy) ?? can[0] ?? null);
	const pinchable = $derived(inputs.some((i) => i.pinch));
	const countable = $derived(side === 'both' && inputs.some((i) => i.counted !== 'here'));
	/** A line that was chosen in the form; what is pointed at afterwards counts again. */
	let chosenLine = $state.raw<{ piece: string; line: string; instead: Subject | null } | null>(null);
	const own = $derived(chosenLine?.instead === at ? chosenLine : null);
	const piece = $derived(own?.piece ?? at?.piece ?? before?.piece ?? '');
	const line = $derived(
		own?.line ?? (at ? (at.kind === 'line' || at.kind === 'dart' ? at.name : '') : (before?.line ?? '')),
	);
	/** Marks that are typed of a line and not recorded yet: they outlive the page. */
	function aside(): PutAside<Marked> {
		return new PutAside(`izett-marks-${desk.job?.id}-${round}-${known}-${piece}-${line}`);
	}
	// svelte-ignore state_referenced_locally
	let marked = $state.raw<Marked>(before?.marked ?? { marks: [], way: 'dots' });
	/** Whether this browser could not put them aside. */
	let unsafe = $state(false);
	// Another line that was marked here before has its marks back; a new one takes along what is typed: the line was meant.
	$effect(() => {
		if (kind.marks && piece && line) marked = aside().read() ?? untrack(() => marked);
	});
	/** Whether all that it asks for is there: remedies are worked out then. */
	const complete = $derived(!kind.marks || (!!line && marked.marks.length > 0));

	function mark(next: Marked): void {
		marked = next;
		unsafe = !aside().write(next);
	}

	/** Each remedy tried by itself, to be laid over the others. */
	let trials = $state.raw<Record<string, Trial>>({});
	let over = $state(false);

	function tryAll(plans: Worked[]): void {
		if (!desk.job) return;
		const { recipe } = desk.job;
		const tried = { ...trials };
		for (const plan of plans) {
			const changed = withRemedy(recipe, plan, before?.steps);
			if (tried[plan.key]) tried[plan.key]!.try(changed, { than: recipe });
			else tried[plan.key] = desk.another(changed, { than: recipe });
		}
		trials = tried;
	}

	function layOver(): void {
		over = !over;
		if (over) tryAll(can);
	}

	/** The pencil of a remedy: none of them that of the muslin under them. */
	function pencilOf(plan: Worked): string {
		return pencil(round + 1 + can.indexOf(plan));
	}

	$effect(() => {
		const laid = over ? can.filter((plan) => plan.key !== chosen?.key && trials[plan.key]) : [];
		onlay(laid.map((plan) => ({ title: plan.title, pencil: pencilOf(plan), trial: trials[plan.key]! })));
	});
	onDestroy(() => onlay([]));

	function given(): Record<string, LengthIn> {
		return Object.fromEntries(inputs.map((i) => [i.symbol, { text: String(amounts[i.symbol]), unit: 'cm' }]));
	}

	function found() {
		const what = { kind: kind.key, side, given: given(), taken, counted, piece, line };
		return kind.marks ? { ...what, marked: marked.marks.length ? marked : null } : what;
	}

	const worker = new Latest<ReturnType<typeof found>, Worked[]>(
		(wish) =>
			answered(
				api.POST('/api/jobs/{job_id}/remedies', {
					params: { path: { job_id: desk.job!.id } },
					body: { ...wish, finding: before?.uid ?? '' },
				}),
			),
		(result) => {
			ways = result;
			problem = null;
			if (over) tryAll(can);
			ontry(chosen);
		},
		(error) => {
			problem = asProblem(error);
			ways = [];
			ontry(null);
		},
	);
	function work(): void {
		if (complete) worker.wish(found());
		else {
			ways = [];
			ontry(null);
		}
	}
	// Where it is and how it was marked may change under the form; the rest is told as it is typed.
	$effect(() => {
		void [piece, line, marked];
		untrack(work);
	});
	onDestroy(() => onmarking(null));

	function pick(key: string): void {
		remedy = key;
		ontry(chosen);
	}

	async function keep(): Promise<boolean> {
		if (!(await allRead())) return false;
		const finding = { ...found(), uid, movement, words };
		const kept = await (before
			? desk.deeds.edit(round, finding, kind.seen)
			: desk.deeds.record(round, finding, kind.seen));
		if (kept) aside().drop();
		return kept;
	}

	async function record(apply: boolean): Promise<void> {
		const plan = chosen;
		if (!(await keep())) return;
		if (apply && plan && !(await desk.deeds.apply(round, uid, plan))) return;
		ondone();
	}

	async function callNormal(): Promise<void> {
		if (!why || !(await keep())) return;
		if (await desk.deeds.normal(round, uid, why)) ondone();
	}

	async function withdraw(): Promise<void> {
		if (before && (await desk.deeds.withdraw(round, before))) leave();
	}

	function leave(): void {
		ontry(null);
		ondone();
	}
</script>

<form onsubmit={(e) => (e.preventDefault(), void record(true))}>
	<label class="soft" for="kind">{before ? 'It showed' : 'It shows'}</label>
	<select id="kind" class="field wide" value={kind.key} onchange={(e) => onchoose(e.currentTarget.value)}>
		{#each kinds as k (k.key)}<option value={k.key}>{k.seen}</option>{/each}
	</select>
	<p class="soft">{kind.cause}</p>
	{#if kind.marks}
		<NewLine
			pieces={desk.trial.pieces}
			{piece}
			{line}
			{side}
			{marked}
			online={(piece, line) => (chosenLine = { piece, line, instead: at })}
			onmarked={mark}
			{onmarking}
		/>
		{#if unsafe}<p role="alert">This browser cannot put aside what is typed: record it soon.</p>{/if}
	{:else if line}<p class="soft">Pointed at: {lineName(line)}.</p>{/if}
	{#each inputs as input (input.symbol)}
		<div class="amount">
			<NumberField
				label={input.label}
				labelled="above"
				value={amounts[input.symbol]!}
				unit="cm"
				live
				other
				onvalue={(cm) => {
					amounts[input.symbol] = cm;
					work();
				}}
			/>
		</div>
	{/each}
	{#if pinchable}
		<div class="choice" role="group" aria-label="How it was measured">
			<label
				><input type="radio" bind:group={taken} value="whole" onchange={work} /> whole cloth taken out</label
			>
			<label
				><input type="radio" bind:group={taken} value="pinch" onchange={work} /> folded pinch (half of it)</label
			>
		</div>
	{/if}
	{#if countable}
		<div class="choice" role="group" aria-label="What it is counted over">
			<label><input type="radio" bind:group={counted} value={null} onchange={work} /> all around</label>
			<label><input type="radio" bind:group={counted} value="each_side" onchange={work} /> each side</label>
		</div>
	{/if}
	<div class="pair">
		<label>
			<span class="soft">Side</span>
			<select class="field" bind:value={side} onchange={work}>
				{#if !kind.one_half}<option value="both">both</option>{/if}
				<option value="left">left</option>
				<option value="right">right</option>
			</select>
		</label>
		<label>
			<span class="soft">When</span>
			<select class="field" bind:value={movement}>
				{#each shelf.all?.movements ?? [] as m (m)}<option value={m}>{m}</option>{/each}
			</select>
		</label>
	</div>
	{#if side !== 'both'}
		<p class="soft">The paper changes on the {side} half only; the other half stays as it is.</p>
	{/if}
	<label class="block">
		<span class="soft">The wearer’s words</span>
		<textarea class="field wide" rows="2" bind:value={words}></textarea>
	</label>

	{#if problem}<ProblemNote {problem} />{/if}
	{#if ways.length}
		<div class="changes">
			<h3>Paper change</h3>
			{#if can.length > 1}
				<button class="button small" type="button" aria-pressed={over} onclick={layOver}
					>{over ? 'Show only the chosen one' : 'Lay them over each other'}</button
				>
			{/if}
		</div>
		<Ways kind={kind.key} {ways} {chosen} pencilOf={over ? pencilOf : null} onpick={pick} />
	{/if}
	<div class="deeds">
		<button class="button main" type="submit" disabled={desk.deeds.busy || !chosen}
			>{before ? 'Keep and change the paper' : 'Record and change the paper'}</button
		>
		<button
			class="button"
			type="button"
			disabled={desk.deeds.busy || !!problem || !complete}
			onclick={() => record(false)}>{before ? 'Keep' : 'Record only'}</button
		>
		{#if before}
			<button class="button" type="button" disabled={desk.deeds.busy} onclick={withdraw}>Withdraw it</button>
		{/if}
		<button class="button" type="button" onclick={leave}>Leave</button>
	</div>
	<details class="normal" open={!!kind.normal}>
		<summary>Normal for this cut</summary>
		<label class="block">
			<span class="soft">Why it is left as it is</span>
			<textarea class="field wide" rows="2" bind:value={why}></textarea>
		</label>
		<button class="button" type="button" disabled={desk.deeds.busy || !why || !!problem} onclick={callNormal}
			>Normal: change nothing</button
		>
	</details>
</form>

<style>
	.wide {
		width: 100%;
	}
	p {
		margin: 0.2rem 0 0.5rem;
	}
	h3 {
		font-size: 1.05rem;
		margin: 0.5rem 0 0.2rem;
	}
	.amount {
		margin-bottom: 0.4rem;
	}
	.choice {
		display: flex;
		flex-direction: column;
		margin-bottom: 0.4rem;
	}
	.pair {
		display: flex;
		gap: 0.8rem;
	}
	.pair label,
	.block {
		display: flex;
		flex-direction: column;
	}
	.changes {
		display: flex;
		justify-content: space-between;
		align-items: baseline;
	}
	.deeds {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		margin: 0.5rem 0 0.6rem;
	}
	.normal {
		margin-bottom: 1rem;
	}
	summary {
		cursor: pointer;
	}
</style>
