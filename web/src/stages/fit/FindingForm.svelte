<!-- One finding: how much, where, in whose words; its remedies with their arithmetic, tried on the table before they are applied. -->
<script lang="ts">
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
	import { getDesk } from '../../lib/desk/context';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import LengthField from '../../lib/parts/LengthField.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { reading, shown, spoken, typed } from '../../lib/units.svelte';

	interface Props {
		kind: Kind;
		round: number;
		kinds: Kind[];
		ontry: (steps: Step[] | null) => void;
		onchoose: (kind: string) => void;
		ondone: () => void;
	}
	let { kind, round, kinds, ontry, onchoose, ondone }: Props = $props();

	const desk = getDesk();
	// svelte-ignore state_referenced_locally
	let texts = $state<Record<string, string>>(
		Object.fromEntries(kind.inputs.map((i) => [i.symbol, typed(i.default, reading.unit)])),
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

	function given(): Record<string, LengthIn> {
		return Object.fromEntries(Object.entries(texts).map(([s, text]) => [s, { text, unit: reading.unit }]));
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
		desk.preview?.stages.find((s) => s.failure && chosen?.steps.some((step) => step.uid === s.step.uid)) ??
			null,
	);
	const followers = $derived(chosen?.follows ?? []);

	async function record(apply: boolean): Promise<void> {
		const finding = { uid, kind: kind.key, side, movement, words, given: given(), taken };
		const kept = await desk.deed(`record: ${kind.seen}`, (job, version) =>
			answered(
				api.POST('/api/jobs/{job_id}/rounds/{number}/findings', {
					params: { path: { job_id: job.id, number: round }, header: version },
					body: finding,
				}),
			),
		);
		if (!kept) return;
		if (apply && chosen) {
			const applied = await applyTo(uid, chosen);
			if (!applied) return;
		}
		ondone();
	}

	function applyTo(finding: string, plan: Worked): Promise<boolean> {
		const uids = plan.steps.map(() => freshName('s'));
		return desk.deed(`apply: ${plan.title}`, (job, version) =>
			answered(
				api.POST('/api/jobs/{job_id}/rounds/{number}/findings/{uid}/remedy', {
					params: { path: { job_id: job.id, number: round, uid: finding }, header: version },
					body: { remedy: plan.key, uids },
				}),
			),
		);
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
			<LengthField label={input.label} bind:text={texts[input.symbol]!} onlength={work} />
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
		<h3>Paper change</h3>
		{#each remedies as plan (plan.key)}
			<label class="remedy" class:chosen={plan.key === chosen?.key}>
				<input
					type="radio"
					name="remedy"
					checked={plan.key === chosen?.key}
					onchange={() => pick(plan.key)}
				/>
				<span>
					<strong>{plan.title}</strong>
					<span class="sum figures" data-sum="{kind.key}.{plan.key}">
						{arithmetic(plan)}
					</span>
					<span class="soft">{plan.reason}</span>
				</span>
			</label>
		{/each}
		{#if refused}
			<p class="note">{spoken(refused.failure)} {spoken(refused.mend)}</p>
		{/if}
		{#if followers.length}<p class="soft">Look also at: {followers.join(', ')}.</p>{/if}
	{/if}
	<div class="deeds">
		<button class="button main" type="submit" disabled={desk.busy || !chosen || !!refused}
			>Record and change the paper</button
		>
		<button class="button" type="button" disabled={desk.busy || !!problem} onclick={() => record(false)}
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
	.deeds {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		margin: 0.5rem 0 1rem;
	}
</style>
