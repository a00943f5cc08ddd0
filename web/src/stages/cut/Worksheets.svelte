<!-- The sums of the cutting table: a few numbers in, the sums with those numbers in them; kept with the job, used in its steps. -->
<script lang="ts">
	import {
		api,
		type Cloth,
		type ClothUse,
		type CutSum,
		type CutSumLine,
		type SumKept,
	} from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { newUid, withStep } from '../../lib/desk/recipe';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { Loaded } from '../../lib/api/loaded.svelte';
	import { reading, shown, spoken } from '../../lib/units.svelte';
	import { SHARES } from './clothFields';
	import type { CutTableKept } from './cutTable.svelte';

	let { table }: { table: CutTableKept } = $props();
	const desk = getDesk();

	const all = desk.reads<CutSum[]>();
	void all.load(api.GET('/api/worksheets'));
	const lines = new Loaded<CutSumLine[]>();

	let open = $state<SumKept | null>(null);
	const sheet = $derived(all.value?.find((one) => one.key === open?.kind));
	const kept = $derived(table.value?.kept.sums ?? []);

	$effect(() => {
		if (!open) return;
		void lines.load(
			api.POST('/api/worksheets/{key}', {
				params: { path: { key: open.kind } },
				body: { values: open.values },
			}),
		);
	});

	function begin(kind: string): void {
		open = kind ? { uid: newUid(), kind, values: {}, note: '' } : null;
	}

	function set(symbol: string, value: number): void {
		if (open) open = { ...open, values: { ...open.values, [symbol]: value } };
	}

	function said(line: Pick<CutSumLine, 'value' | 'unit'>): string {
		if (line.unit === 'cm') return shown(line.value);
		const number = String(Math.round(line.value * 100) / 100);
		return line.unit ? `${number} ${line.unit}` : number;
	}

	interface Need {
		words: string;
		put: () => Promise<unknown>;
	}

	/** Where a result is needed: in steps of the recipe, and in the cloths of the job. */
	const needs = $derived((sheet?.uses ?? []).flatMap((use) => needed(use)));

	function needed(use: CutSum['uses'][number]): Need[] {
		const line = (lines.value ?? []).find((one) => one.symbol === use.symbol);
		const input = sheet?.inputs.find((one) => one.symbol === use.symbol);
		const value = line?.value ?? (input ? (open?.values?.[input.symbol] ?? input.default) : null);
		if (value === null) return [];
		const label = line?.label ?? input?.label ?? '';
		// What goes there is said: the sums may still be on their way.
		const unit = line?.unit ?? input?.unit ?? '';
		const into = (what: string): string => `${label}, ${said({ value, unit })}, into: ${what}`;
		if (use.kind === 'cloth') {
			const number = SHARES.find((one) => one.key === use.param);
			const cloths = Object.entries(table.value?.kept.cloths ?? {}) as [ClothUse, Cloth][];
			return cloths.flatMap(([key, cloth]) =>
				number
					? [
							{
								words: into(cloth.name || (table.value?.uses.find((one) => one.use === key)?.title ?? key)),
								put: () => table.take(key, { ...cloth, ...number.set(cloth, Math.round(value * 100) / 100) }),
							},
						]
					: [],
			);
		}
		return (desk.trial.preview?.stages ?? [])
			.filter(({ step, follows }) => step.kind === use.kind && !follows.length)
			.filter(({ step }) => !use.of || (step.params.kind ?? '') === use.of)
			.map(({ step, words }) => ({
				words: into(spoken(words)),
				put: () =>
					desk.deeds.keep(
						(recipe) => withStep(recipe, { ...step, params: { ...step.params, [use.param]: value } }),
						`${sheet?.title}: ${label.toLowerCase()}`,
					),
			}));
	}

	function print(paper: string): string {
		return `/api/jobs/${desk.job?.id}/sums/print?paper=${paper}&unit=${reading.unit}`;
	}
</script>

<label class="choose">
	<span class="soft">A worksheet</span>
	<select class="field" value={open?.kind ?? ''} onchange={(e) => begin(e.currentTarget.value)}>
		<option value="">choose…</option>
		{#each all.value ?? [] as one (one.key)}<option value={one.key}>{one.title}</option>{/each}
	</select>
</label>

{#if open && sheet}
	<h2>{sheet.title}</h2>
	<p class="soft">{sheet.says}</p>
	{#each sheet.inputs as input (input.symbol)}
		<NumberField
			label={input.label}
			value={open.values?.[input.symbol] ?? input.default}
			unit={input.unit}
			low={input.low}
			high={input.high}
			title={input.reason}
			onvalue={(value) => set(input.symbol, value)}
		/>
	{/each}
	{#if lines.problem}
		<ProblemNote problem={lines.problem} />
	{:else}
		<table>
			<tbody>
				{#each lines.value ?? [] as line (line.symbol)}
					<tr class:result={sheet.gives.includes(line.symbol)}>
						<th scope="row">{line.label}<span class="worked">{spoken(line.worked)}</span></th>
						<td data-result={line.symbol}>{said(line)}</td>
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
	<label class="choose">
		<span class="soft">What it is for</span>
		<input
			class="field"
			value={open.note}
			maxlength="200"
			onchange={(e) => open && (open = { ...open, note: e.currentTarget.value })}
		/>
	</label>
	<div class="row">
		<button
			class="button main"
			disabled={desk.deeds.busy || !!lines.problem}
			onclick={() => void table.sum(open!)}
		>
			Keep it with the job
		</button>
	</div>
	{#each needs as need, i (i)}
		<button class="button small" disabled={desk.deeds.busy} onclick={() => void need.put()}>
			{need.words}
		</button>
	{/each}
{/if}

{#if kept.length}
	<h2>Kept with this job</h2>
	<ul>
		{#each kept as one (one.uid)}
			<li>
				<button class="button small" onclick={() => (open = { ...one })}>
					{all.value?.find((s) => s.key === one.kind)?.title ?? one.kind}{one.note ? `: ${one.note}` : ''}
				</button>
				<button class="button small" onclick={() => void table.withoutSum(one.uid)}>Let go</button>
			</li>
		{/each}
	</ul>
	<p class="row">
		<a class="button" href={print('a4')} download>Print these sums, A4</a>
		<a class="button" href={print('letter')} download>Letter</a>
	</p>
{/if}

<style>
	.choose {
		display: grid;
		gap: 0.2rem;
		margin: 0.6rem 0;
	}
	h2 {
		font-size: 1.1rem;
		margin: 0.8rem 0 0.2rem;
	}
	.soft {
		margin: 0.2rem 0;
	}
	table {
		width: 100%;
		border-collapse: collapse;
		margin: 0.6rem 0;
		font-variant-numeric: tabular-nums;
	}
	th {
		text-align: left;
		font-weight: 400;
		padding: 0.25rem 0;
	}
	td {
		text-align: right;
		white-space: nowrap;
	}
	tr {
		border-bottom: 1px solid var(--rule);
	}
	.result th,
	.result td {
		font-weight: 600;
	}
	.worked {
		display: block;
		color: var(--ink-soft);
		font-weight: 400;
		font-size: 0.9rem;
	}
	.row {
		display: flex;
		gap: 0.5rem;
		margin: 0.4rem 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 0.5rem;
		padding: 0.25rem 0;
	}
</style>
