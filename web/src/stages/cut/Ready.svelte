<!-- Pieces made ready: seam allowances for a purpose, line by line where wished; print at true size, and open files. -->
<script lang="ts">
	import { bare } from '../../lib/desk/names.svelte';
	import { cuttingOf, withCutting, type Cutting } from '../../lib/desk/recipe';
	import { getDesk } from '../../lib/desk/context';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import type { StepWork } from '../../lib/step/stepWork.svelte';
	import WorkedStep from '../../lib/step/WorkedStep.svelte';
	import { subjects, type Subject } from '../../lib/table/picking';
	import { shown } from '../../lib/units.svelte';
	import { lineOnBoth } from '../../lib/words';
	import { turningOf } from './finishing';
	import Pointed from './Pointed.svelte';
	import TestSquare from './TestSquare.svelte';

	interface Props {
		/** Told which lines are pointed at. */
		onlit: (lines: string[]) => void;
		/** What was pointed at on the table. */
		picked: Subject | null;
		/** The step that is worked, such as a mark. */
		work: StepWork;
		onpick: (subject: Subject | null) => void;
	}
	let { onlit, picked, work, onpick }: Props = $props();

	const desk = getDesk();

	/** What a pattern is printed on, and what it is written as for others. */
	const PRINTS = [
		['a4', 'Print file, A4'],
		['letter', 'Print file, Letter'],
		['a0', 'A0 sheets'],
		['roll', 'On a roll'],
	] as const;
	const FILES = [
		['svg', 'SVG'],
		['dxf', 'DXF, a layer a line'],
		['dxf-numbered', 'DXF, layers by number'],
		['plt', 'Plot file (HPGL)'],
		['json', 'Pattern, JSON'],
		['seams', 'Seam lengths, CSV'],
		['cutting-list', 'Cutting list, CSV'],
	] as const;

	const purposes = $derived(shelf.all?.purposes ?? []);
	const usual = $derived(desk.trial.preview?.cut_for ?? 'muslin');
	const cutting = $derived(cuttingOf(desk.job?.recipe, usual));
	const purpose = $derived(purposes.find((p) => p.key === cutting.purpose));
	const lines = $derived.by(() => {
		const found: { lineage: string; role: string; width: number }[] = [];
		for (const piece of desk.trial.pieces)
			for (const edge of piece.edges) {
				// A line has one allowance, on either half.
				const lineage = bare(edge.lineage);
				const isCut = edge.role !== 'dart_leg' && edge.lineage !== piece.on_fold;
				if (isCut && !found.some((f) => f.lineage === lineage))
					found.push({ lineage, role: edge.role, width: edge.allowance });
			}
		return found;
	});

	/** What can be pointed at here, to be chosen without a pointer. */
	const things = $derived(
		subjects(desk.trial.pieces).filter(({ subject: { kind } }) => kind === 'line' || kind === 'piece'),
	);

	/** Lines that were left without an allowance, and that nobody accepted so. */
	const missing = $derived(
		(desk.trial.preview?.checks ?? [])
			.filter((r) => r.check === 'allowances_agree' && r.aspect === 'without' && r.verdict === 'warns')
			.map((r) => lineOnBoth(r.where[0] ?? '')),
	);

	/** Keep a change of the allowances: a step of the recipe. */
	async function set(change: (cutting: Cutting) => Cutting): Promise<void> {
		await desk.deeds.keep((recipe) => withCutting(recipe, usual, change), 'Seam allowances');
	}

	function cutFor(purpose: string): void {
		void set((now) => ({ ...now, purpose }));
	}

	/** Give a line an allowance of its own, or the usual one again. */
	function widen(lineage: string, cm: number | null): void {
		void set((now) => {
			const lines = now.lines.filter((one) => one.line !== lineage);
			return { ...now, lines: cm === null ? lines : [...lines, { line: lineage, width: cm }] };
		});
	}

	function file(kind: string, query = ''): string {
		return `/api/jobs/${desk.job?.id}/files/${kind}${query}`;
	}
</script>

{#if work.editing}
	<WorkedStep {work} />
{:else if picked}
	<Pointed subject={picked} {work} onwiden={widen} onleave={() => onpick(null)} />
{:else}
	<p>
		<label class="soft" for="thing">Point at an edge or a piece to make it ready, or choose</label>
		<select
			id="thing"
			class="field"
			value=""
			onchange={(e) => {
				const found = things[Number(e.currentTarget.value)];
				if (found) onpick(found.subject);
				e.currentTarget.value = '';
			}}
		>
			<option value="">an edge, a piece…</option>
			{#each things as { label }, i (i)}<option value={i}>{label}</option>{/each}
		</select>
	</p>
{/if}
<h2>Print and carry</h2>
{#if missing.length}
	<p class="missing" role="alert">
		No seam allowance at {missing.join(', ')}: give it one below, or accept it with a reason in Check. Until
		then nothing is printed.
	</p>
{/if}
<div class="files">
	{#each PRINTS as [paper, words] (paper)}
		<a class="button main" href={file('pdf', `?paper=${paper}`)} download>{words}</a>
	{/each}
</div>
<TestSquare />
<p class="soft">Files for others, true to size, in millimetres:</p>
<div class="files">
	{#each FILES as [kind, words] (kind)}
		<a class="button" href={file(kind)} download>{words}</a>
	{/each}
	<a class="button" href={`/api/jobs/${desk.job?.id}/export`} download>Whole job, JSON</a>
</div>
{#each shelf.all?.cautions.cut ?? [] as caution (caution)}<p class="soft">{caution}</p>{/each}
<h2>Seam allowances</h2>
<label>
	<span class="soft">Cut for</span>
	<select
		class="field"
		value={cutting.purpose}
		disabled={desk.deeds.busy}
		onchange={(e) => cutFor(e.currentTarget.value)}
	>
		{#each purposes as p (p.key)}<option value={p.key}>{p.title}</option>{/each}
	</select>
</label>
{#if purpose}<p class="soft">{purpose.reason}</p>{/if}
<ul>
	{#each lines as line (line.lineage)}
		{@const own = cutting.lines.some((one) => one.line === line.lineage)}
		{@const turned = desk.job ? turningOf(desk.job.recipe, line.lineage) : null}
		<li onpointerenter={() => onlit([line.lineage])} onpointerleave={() => onlit([])} class:own>
			{#if turned}
				<!-- Its turning says how wide it is cut. -->
				<span>{lineOnBoth(line.lineage)}: {shown(line.width)}, turned</span>
			{:else}
				<NumberField
					label={lineOnBoth(line.lineage)}
					value={line.width}
					unit="cm"
					low={0}
					high={shelf.all?.widest_allowance ?? null}
					title={own
						? `The usual is ${shown(purpose?.by_role[line.role] ?? 0)}; empty the field to take it`
						: ''}
					onvalue={(cm) => widen(line.lineage, cm)}
					onempty={() => widen(line.lineage, null)}
				/>
			{/if}
		</li>
	{/each}
</ul>

<style>
	h2 {
		font-size: 1.1rem;
		margin: 0.6rem 0 0.4rem;
	}
	.files {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
	}
	.missing {
		border-left: 4px solid var(--wax);
		padding: 0.3rem 0.6rem;
	}
	p {
		margin: 0.4rem 0;
	}
	li {
		padding: 0.2rem 0;
		border-bottom: 1px solid var(--rule);
	}
	li:hover {
		background: var(--chalk-soft);
	}
	.own :global(input) {
		border-color: var(--chalk);
		border-width: 2px;
		font-weight: 600;
	}
</style>
