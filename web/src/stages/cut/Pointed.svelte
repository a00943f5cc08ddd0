<!-- What was pointed at on the cutting table, made ready: a line's allowance, turning and corners; what is said of a piece. -->
<script lang="ts">
	import type { Recipe } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { bare } from '../../lib/desk/names.svelte';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import type { StepWork } from '../../lib/step/stepWork.svelte';
	import type { Subject } from '../../lib/table/picking';
	import { lineOnBoth } from '../../lib/words';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import {
		cornerOf,
		neighbours,
		saidOf,
		turningOf,
		withCorner,
		withSaid,
		withTurning,
		type CornerKind,
		type Lie,
		type PieceSaid,
	} from './finishing';
	import Marks from './Marks.svelte';

	interface Props {
		subject: Subject;
		work: StepWork;
		/** Give a line an allowance of its own, or the usual one again (null). */
		onwiden: (line: string, cm: number | null) => void;
		onleave: () => void;
	}
	let { subject, work, onwiden, onleave }: Props = $props();
	const desk = getDesk();

	const CORNERS: [CornerKind | '', string][] = [
		['', 'as usual'],
		['mitre', 'mitred'],
		['square', 'squared'],
		['folded', 'folded back'],
	];
	const LIES: [Lie, string][] = [
		['straight', 'as drafted'],
		['bias', 'on the bias'],
		['across', 'across'],
	];
	const CLOTHS = [
		['', 'what its layer asks for'],
		['outer', 'outer cloth'],
		['contrast', 'second cloth'],
		['lining', 'lining'],
		['interfacing', 'interfacing'],
		['strength', 'strength layer'],
	] as const;

	const piece = $derived(desk.trial.pieces.find((one) => one.name === subject.piece));
	const recipe = $derived(desk.job?.recipe);
	const line = $derived(bare(subject.name));
	const edge = $derived(piece?.edges.find((one) => bare(one.lineage) === line && one.role !== 'dart_leg'));
	const folds = $derived(!!piece && edge?.lineage === piece.on_fold);
	const turning = $derived(recipe ? turningOf(recipe, line) : null);
	const ends = $derived(piece && edge ? neighbours(piece, line) : ['', '']);
	const said = $derived(recipe && piece ? saidOf(recipe, bare(piece.name)) : null);

	async function keep(change: (recipe: Recipe) => Recipe, words: string): Promise<void> {
		await desk.deeds.keep(change, words);
	}

	function turn(depth: number, under: number): void {
		void keep((now) => withTurning(now, line, { depth, under }), `Turned: ${lineOnBoth(line)}`);
	}

	function say(change: Partial<PieceSaid>): void {
		if (!said || !piece) return;
		const after = { ...said, ...change };
		void keep((now) => withSaid(now, bare(piece.name), after), `Made ready: ${piece.title}`);
	}
</script>

<section aria-label="What is pointed at">
	<p class="head">
		<strong>{subject.kind === 'line' ? lineOnBoth(line) : (piece?.title ?? subject.name)}</strong>
		<button class="button small" onclick={onleave}>Let go</button>
	</p>
	{#if subject.kind === 'line' && edge}
		{#if folds}
			<p class="soft">
				A fold has no allowance. Put the piece on paper whole, if you like: point at the piece.
			</p>
		{:else}
			{#if turning}
				<NumberField
					label="Turned, deep"
					value={turning.depth}
					unit="cm"
					low={0.3}
					high={shelf.all?.widest_allowance ?? null}
					onvalue={(cm) => turn(cm, turning.under)}
				/>
				<NumberField
					label="Of the raw edge turned under"
					value={turning.under}
					unit="cm"
					low={0}
					high={5}
					onvalue={(cm) => turn(turning.depth, cm)}
				/>
				<button
					class="button small"
					disabled={desk.deeds.busy}
					onclick={() => void keep((now) => withTurning(now, line, null), `Not turned: ${lineOnBoth(line)}`)}
				>
					Do not turn it
				</button>
			{:else}
				<NumberField
					label="Seam allowance"
					value={edge.allowance}
					unit="cm"
					low={0}
					high={shelf.all?.widest_allowance ?? null}
					title="Empty the field to take the usual one"
					onvalue={(cm) => onwiden(line, cm)}
					onempty={() => onwiden(line, null)}
				/>
				<button class="button small" disabled={desk.deeds.busy} onclick={() => turn(4, 1)}>
					Turn it: a hem, or a facing in one with the piece
				</button>
				{#each [true, false] as atStart (atStart)}
					<label class="row">
						<span class="soft">Corner at the {lineOnBoth(ends[atStart ? 0 : 1]!)}</span>
						<select
							class="field"
							disabled={desk.deeds.busy}
							value={(recipe && cornerOf(recipe, line, atStart)) ?? ''}
							onchange={(e) => {
								const kind = (e.currentTarget.value || null) as CornerKind | null;
								void keep((now) => withCorner(now, line, atStart, kind), `Corner of ${lineOnBoth(line)}`);
							}}
						>
							{#each CORNERS as [value, words] (value)}<option {value}>{words}</option>{/each}
						</select>
					</label>
				{/each}
			{/if}
		{/if}
		<Marks {subject} {work} />
	{:else if subject.kind === 'piece' && piece && said}
		<label class="row">
			<span class="soft">Cut from</span>
			<select
				class="field"
				disabled={desk.deeds.busy}
				value={said.cloth}
				onchange={(e) => say({ cloth: e.currentTarget.value })}
			>
				{#each CLOTHS as [value, words] (value)}<option {value}>{words}</option>{/each}
			</select>
		</label>
		<label class="row">
			<span class="soft">Grain</span>
			<select
				class="field"
				disabled={desk.deeds.busy}
				value={said.lie}
				onchange={(e) => say({ lie: e.currentTarget.value as Lie })}
			>
				{#each LIES as [value, words] (value)}<option {value}>{words}</option>{/each}
			</select>
		</label>
		<NumberField
			label="How many"
			value={said.cut || piece.cut}
			unit=""
			low={1}
			high={40}
			onvalue={(count) => say({ cut: Math.round(count) })}
			onempty={() => say({ cut: 0 })}
		/>
		{#if piece.on_fold || said.whole}
			<label class="row tick">
				<input
					type="checkbox"
					checked={said.whole}
					disabled={desk.deeds.busy}
					onchange={(e) => say({ whole: e.currentTarget.checked })}
				/>
				<span>Whole on paper, instead of a half on the fold</span>
			</label>
		{/if}
		<label class="row tick">
			<input
				type="checkbox"
				checked={said.free}
				disabled={desk.deeds.busy}
				onchange={(e) => say({ free: e.currentTarget.checked })}
			/>
			<span>May lie at any angle to the grain</span>
		</label>
		<label class="row">
			<span class="soft">Words for its label</span>
			<input
				class="field"
				maxlength="60"
				value={said.says}
				onchange={(e) => say({ says: e.currentTarget.value.trim() })}
			/>
		</label>
	{:else}
		<p class="soft">There is nothing to finish here: point at an edge, or at the middle of a piece.</p>
	{/if}
</section>

<style>
	section {
		border: 1px solid var(--chalk);
		border-radius: var(--radius-base);
		background: var(--paper);
		padding: 0.5rem 0.8rem;
		margin: 0.6rem 0;
		display: grid;
		gap: 0.4rem;
	}
	.head {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin: 0;
	}
	.row {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 0.6rem;
	}
	.tick {
		justify-content: flex-start;
	}
	p {
		margin: 0;
	}
</style>
