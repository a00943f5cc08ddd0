<!-- One finding: how much, where, in whose words; its remedies with their arithmetic, tried on the table before they are applied. -->
<script lang="ts">
	import { onDestroy } from 'svelte';
	import {
		answered,
		api,
		asProblem,
		freshName,
		type Half,
		type Kind,
		type LengthIn,
		type Problem,
		type Step,
		type Worked,
	} from '../../lib/api/client';
	import { Latest } from '../../lib/api/latest';
	import { newlyOdd } from '../../lib/desk/checks';
	import { getDesk } from '../../lib/desk/context';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { withSteps } from '../../lib/desk/recipe';
	import type { Trial } from '../../lib/desk/trial.svelte';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { allRead } from '../../lib/parts/reads';
	import { shown, spoken } from '../../lib/units.svelte';
	import { lineName, pencil } from '../../lib/words';
	import type { Laid } from './laid';

	interface Props {
		kind: Kind;
		round: number;
		kinds: Kind[];
		ontry: (steps: Step[] | null) => void;
		/** Told of the remedies that are to be laid over each other. */
		onlay: (laid: Laid[]) => void;
		onchoose: (kind: string) => void;
		ondone: () => void;
	}
	let { kind, round, kinds, ontry, onlay, onchoose, ondone }: Props = $props();

	const desk = getDesk();
	// svelte-ignore state_referenced_locally
	let amounts = $state<Record<string, number>>(
		Object.fromEntries(kind.inputs.map((i) => [i.symbol, i.default])),
	);
	let taken = $state<'whole' | 'pinch'>('whole');
	let side = $state<Half>('both');
	// svelte-ignore state_referenced_locally
	let movement = $state(kind.movement);
	let words = $state('');
	let remedies = $state<Worked[]>([]);
	let remedy = $state<string | null>(null);
	let problem = $state<Problem | null>(null);

	const uid = freshName('f');
	const chosen = $derived(remedies.find((r) => r.key === remedy) ?? remedies[0] ?? null);
	const pinchable = $derived(kind.inputs.some((i) => i.pinch));

	/** Each remedy tried by itself, at the same time; and the pattern without any, to tell what is new. */
	let trials = $state.raw<Record<string, Trial>>({});
	const without = desk.job ? desk.another(desk.job.recipe) : null;
	let over = $state(false);

	function tryAll(plans: Worked[]): void {
		if (!desk.job) return;
		const { recipe } = desk.job;
		const tried = { ...trials };
		for (const plan of plans) {
			const changed = withSteps(recipe, plan.steps);
			if (tried[plan.key]) tried[plan.key]!.try(changed, { than: recipe });
			else tried[plan.key] = desk.another(changed, { than: recipe });
		}
		trials = tried;
	}

	/** The pencil of a remedy: none of them that of the muslin under them. */
	function pencilOf(plan: Worked): string {
		return pencil(round + 1 + remedies.indexOf(plan));
	}

	$effect(() => {
		const laid = over ? remedies.filter((plan) => plan.key !== chosen?.key && trials[plan.key]) : [];
		onlay(laid.map((plan) => ({ title: plan.title, pencil: pencilOf(plan), trial: trials[plan.key]! })));
	});
	onDestroy(() => onlay([]));

	function given(): Record<string, LengthIn> {
		return Object.fromEntries(
			Object.entries(amounts).map(([s, cm]) => [s, { text: String(cm), unit: 'cm' }]),
		);
	}

	const worker = new Latest<
		{ given: Record<string, LengthIn>; taken: 'whole' | 'pinch'; side: Half },
		Worked[]
	>(
		(wish) => answered(api.POST('/api/remedies', { body: { kind: kind.key, ...wish } })),
		(result) => {
			remedies = result;
			problem = null;
			if (chosen) ontry(chosen.steps);
			tryAll(result);
		},
		(error) => {
			problem = asProblem(error);
			remedies = [];
			ontry(null);
		},
	);
	function work(): void {
		worker.wish({ given: given(), taken, side });
	}
	work();

	function pick(key: string): void {
		remedy = key;
		if (chosen) ontry(chosen.steps);
	}

	/** The step that could not act, as the table tells it. */
	const refused = $derived(
		desk.trial.preview?.stages.find(
			(s) => s.failure && chosen?.steps.some((step) => step.uid === s.step.uid),
		) ?? null,
	);
	const followers = $derived(chosen?.follows ?? []);

	/** What a remedy comes to, as it was tried: how far the farthest line moves, and what would no longer agree. */
	function cameTo(plan: Worked): string {
		const tried = trials[plan.key]?.preview;
		if (!tried || !without?.preview) return '';
		const failed = tried.stages.some((s) => s.failure && plan.steps.some((step) => step.uid === s.step.uid));
		if (failed) return 'It cannot act on this pattern.';
		const [farthest] = tried.than ?? [];
		const moved = farthest
			? `Moves the ${lineName(farthest.lineage)} most, by ${shown(farthest.distance)}.`
			: 'No line moves.';
		const odd = newlyOdd(without.preview.checks, tried.checks);
		if (!odd.length) return `${moved} Nothing disagrees that agreed.`;
		return `${moved} No longer agrees: ${odd.map((check) => spoken(check.words)).join(' ')}`;
	}

	async function record(apply: boolean): Promise<void> {
		if (!(await allRead())) return;
		const plan = chosen;
		const finding = { uid, kind: kind.key, side, movement, words, given: given(), taken };
		if (!(await desk.deeds.record(round, finding, kind.seen))) return;
		if (apply && plan && !(await desk.deeds.apply(round, uid, plan))) return;
		ondone();
	}

	/** The remedy's sum as one would write it: what was pinned, over how many edges, what each gets. */
	function arithmetic(plan: Worked): string {
		if (plan.key === 'share') return `${spoken(plan.sum_text)} ${plan.sum_label}`;
		const result = `${shown(plan.sum_value)} ${plan.sum_label}`;
		const worked = plan.sum_text.includes('÷') ? `${spoken(plan.sum_text)} = ${result}` : result;
		return plan.edges > 1 ? `${worked} (${plan.edges} edges cut)` : worked;
	}

	function leave(): void {
		ontry(null);
		ondone();
	}
</script>

<form onsubmit={(e) => (e.preventDefault(), void record(true))}>
	<label class="soft" for="kind">It shows</label>
	<select id="kind" class="field wide" value={kind.key} onchange={(e) => onchoose(e.currentTarget.value)}>
		{#each kinds as k (k.key)}<option value={k.key}>{k.seen}</option>{/each}
	</select>
	<p class="soft">{kind.cause}</p>
	{#each kind.inputs as input (input.symbol)}
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
	<div class="pair">
		<label>
			<span class="soft">Side</span>
			<select class="field" bind:value={side} onchange={work}>
				<option value="both">both</option>
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
	{#if remedies.length}
		<div class="changes">
			<h3>Paper change</h3>
			{#if remedies.length > 1}
				<button class="button small" type="button" aria-pressed={over} onclick={() => (over = !over)}
					>{over ? 'Show only the chosen one' : 'Lay them over each other'}</button
				>
			{/if}
		</div>
		{#each remedies as plan (plan.key)}
			<label class="remedy" class:chosen={plan.key === chosen?.key}>
				<input
					type="radio"
					name="remedy"
					checked={plan.key === chosen?.key}
					onchange={() => pick(plan.key)}
				/>
				<span>
					<strong>
						{#if over && plan.key !== chosen?.key}
							<i class="pencil" style:background={pencilOf(plan)} title="drawn dashed in this pencil"></i>
						{/if}
						{plan.title}
					</strong>
					<span class="sum figures" data-sum="{kind.key}.{plan.key}">
						{arithmetic(plan)}
					</span>
					<span class="soft">{plan.reason}</span>
					{#if cameTo(plan)}<span class="came-to">{cameTo(plan)}</span>{/if}
				</span>
			</label>
		{/each}
		{#if refused}
			<p class="note">{spoken(refused.failure)} {spoken(refused.fix)}</p>
		{/if}
		{#if followers.length}<p class="soft">Look also at: {followers.join(', ')}.</p>{/if}
	{/if}
	<div class="deeds">
		<button class="button main" type="submit" disabled={desk.deeds.busy || !chosen || !!refused}
			>Record and change the paper</button
		>
		<button class="button" type="button" disabled={desk.deeds.busy || !!problem} onclick={() => record(false)}
			>Record only</button
		>
		<button class="button" type="button" onclick={leave}>Leave</button>
	</div>
</form>

<style>
	.wide {
		width: 100%;
	}
	.soft {
		color: var(--ink-soft);
		font-size: 0.92rem;
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
	.remedy {
		display: flex;
		gap: 0.6rem;
		padding: 0.45rem;
		border: 1px solid var(--rule);
		border-radius: var(--radius-base);
		margin-bottom: 0.35rem;
		cursor: pointer;
	}
	.remedy.chosen {
		border-color: var(--chalk);
		background: var(--chalk-soft);
	}
	.remedy span span {
		display: block;
	}
	.came-to {
		font-size: 0.92rem;
	}
	.pencil {
		display: inline-block;
		width: 0.7rem;
		height: 0.7rem;
		border-radius: 50%;
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
		margin: 0.5rem 0 1rem;
	}
</style>
