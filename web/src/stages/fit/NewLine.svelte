<!-- New marks of a line: which line, and its marks, measured from two guide lines of the piece as it was cut. -->
<script lang="ts">
	import { api, type Guides, type Half, type Marked, type Piece } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import MarkRow from '../../lib/marks/MarkRow.svelte';
	import NewMark from '../../lib/marks/NewMark.svelte';
	import type { Marking, Pair } from '../../lib/table/view';
	import { reading, shown } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';

	interface Props {
		pieces: Piece[];
		piece: string;
		line: string;
		side: Half;
		marked: Marked;
		/** Told which line is meant, where it was chosen here and not pointed at. */
		online: (piece: string, line: string) => void;
		onmarked: (marked: Marked) => void;
		/** Told where the marks lie on the table. */
		onmarking: (marking: Marking | null) => void;
	}
	let { pieces, piece, line, side, marked, online, onmarked, onmarking }: Props = $props();

	const desk = getDesk();
	const KINDS = ['cross', 'dot'] as const;
	const WAYS: Record<Marked['way'], string> = {
		dots: 'along its dots',
		straight: 'straight',
		curved: 'curved',
		through_all: 'through all of its dots',
	};
	const own = $derived(pieces.find((one) => one.name === piece));
	const lines = $derived([
		...new Set((own?.edges ?? []).filter((e) => e.role !== 'dart_leg').map((e) => e.lineage)),
	]);
	/** How many marks were added here: the next one is typed in fields of its own. */
	let added = $state(0);
	let current = $state<number | null>(null);

	const guides = desk.reads<Guides>();
	$effect(() => {
		if (!piece || !line || !desk.job) return guides.clear();
		const path = { job_id: desk.job.id };
		void guides.load(
			api.GET('/api/jobs/{job_id}/guides', { params: { path, query: { piece, line, side } } }),
		);
	});
	$effect(() => {
		const from = guides.value;
		onmarking(from ? { piece, origin: from.origin as Pair, marks: marked.marks } : null);
	});

	function change(marks: Marked['marks']): void {
		onmarked({ ...marked, marks });
	}

	function end([across, along]: number[]): string {
		return `${shown(across!)} across, ${shown(along!)} along`;
	}
</script>

<div class="pair">
	<label>
		<span class="soft">Piece</span>
		<select
			class="field"
			aria-label="Piece"
			value={piece}
			onchange={(e) => online(e.currentTarget.value, '')}
		>
			<option value="">choose, or point</option>
			{#each pieces as one (one.name)}<option value={one.name}>{one.title}</option>{/each}
		</select>
	</label>
	<label>
		<span class="soft">Line</span>
		<select
			class="field"
			aria-label="Line"
			value={line}
			disabled={!own}
			onchange={(e) => online(piece, e.currentTarget.value)}
		>
			<option value="">choose, or point</option>
			{#each lines as one (one)}<option value={one}>{lineName(one)}</option>{/each}
		</select>
	</label>
</div>
{#if guides.value}
	<p class="soft">
		Across from {guides.value.across_from} towards the side, along up from {guides.value.along_from}.
		{#each guides.value.parts as part, i (i)}
			{guides.value.parts.length > 1 ? `Part ${i + 1}` : 'It'} runs from {end(part.starts)} to {end(
				part.ends,
			)}.
		{/each}
		A cross where an end lies now; leave it out where the end stays.
	</p>
	<div class="mark-row heads plain" aria-hidden="true">
		<span></span><span>mark</span><span>across, {reading.unit}</span><span>along, {reading.unit}</span>
	</div>
	<div
		onfocusin={(e) => {
			const row = (e.target as HTMLElement).closest<HTMLElement>('[data-row]');
			current = row ? Number(row.dataset.row) : null;
		}}
	>
		{#each marked.marks as mark, i (i)}
			<MarkRow
				mark={{ ...mark, lines: [], name: '' }}
				at={i}
				kinds={KINDS}
				named={false}
				current={current === i}
				onchange={(by) =>
					change(
						marked.marks.map((one, n) =>
							n === i
								? {
										kind: by.kind === 'cross' ? 'cross' : by.kind ? 'dot' : one.kind,
										across: by.across ?? one.across,
										along: by.along ?? one.along,
									}
								: one,
						),
					)}
				onremove={() => change(marked.marks.filter((_, n) => n !== i))}
			/>
		{/each}
		{#key added}
			<NewMark
				number={marked.marks.length + 1}
				kind="dot"
				kinds={KINDS}
				named={false}
				autofocus={added > 0}
				onadd={({ kind, across, along }) => {
					added += 1;
					change([...marked.marks, { kind: kind === 'cross' ? 'cross' : 'dot', across, along }]);
				}}
			/>
		{/key}
	</div>
	<label class="way">
		<span class="soft">It is drawn</span>
		<select
			class="field"
			aria-label="It is drawn"
			value={marked.way}
			onchange={(e) => onmarked({ ...marked, way: e.currentTarget.value as Marked['way'] })}
		>
			{#each Object.entries(WAYS) as [way, words] (way)}<option value={way}>{words}</option>{/each}
		</select>
	</label>
{:else}
	<p class="soft">Point at the line on the table, or choose it here; then type its marks.</p>
{/if}

<style>
	.soft {
		margin: 0.2rem 0;
	}
	.pair,
	.way {
		display: flex;
		gap: 0.6rem;
		align-items: baseline;
	}
	.pair label {
		display: flex;
		flex-direction: column;
		flex: 1;
		min-width: 0;
	}
</style>
