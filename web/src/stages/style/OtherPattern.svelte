<!-- Combine: another job's pattern laid over a piece, on this wearer's measures; line by line, which one counts. -->
<script lang="ts">
	import { onDestroy } from 'svelte';
	import { api, type Job, type Piece, type Step, type Ticket } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { newStep } from '../../lib/desk/recipe';
	import type { Trial } from '../../lib/desk/trial.svelte';
	import { spoken } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';

	interface Props {
		/** Told what is laid under the pattern; null when it is taken away. */
		onlay: (other: Trial | null) => void;
		ontake: (step: Step) => void;
	}
	let { onlay, ontake }: Props = $props();

	const desk = getDesk();
	let open = $state(false);
	const bench = desk.reads<Ticket[]>();
	const tickets = $derived((bench.value ?? []).filter((ticket) => ticket.id !== desk.job?.id));
	let laid = $state.raw<Trial | null>(null);
	let garment = $state('');
	let pieceName = $state('');
	let at = $state('');
	let taken = $state<string[]>([]);

	const others = $derived(laid?.pieces ?? []);
	const shared = $derived(
		others.filter((other) => desk.trial.pieces.some((piece) => piece.name === other.name)),
	);
	const other = $derived(shared.find((piece) => piece.name === pieceName) ?? shared[0]);
	const mine = $derived(desk.trial.pieces.find((piece) => piece.name === other?.name));
	const corners = $derived(
		mine && other
			? mine.edges
					.filter((e) => e.role !== 'dart_leg' && other.edges.some((o) => o.start === e.start))
					.map((e) => e.start)
			: [],
	);
	const lines = $derived(
		mine && other
			? [...new Set(mine.edges.filter((e) => e.role !== 'dart_leg').map((e) => e.lineage))].filter(
					(line) => runOf(mine, line) && runOf(other, line),
				)
			: [],
	);

	/** The control points of a line that lies on a piece in one run; null where a dart parts it. */
	function runOf(piece: Piece, lineage: string): [number, number][] | null {
		const edges = piece.edges.filter((e) => e.lineage === lineage && e.role !== 'dart_leg');
		if (edges.length === 1) return edges[0]!.curve as [number, number][];
		return null;
	}

	function under(other: Trial | null): void {
		laid = other;
		onlay(other);
	}

	function show(): void {
		open = !open;
		if (open) void bench.load(api.GET('/api/bench'));
		else under(null);
	}

	async function lay(id: string): Promise<void> {
		taken = [];
		pieceName = '';
		under(null);
		if (!id) return;
		const job = await desk.ask<Job>(api.GET('/api/jobs/{job_id}', { params: { path: { job_id: id } } }));
		if (!job) return;
		garment = job.garment;
		under(desk.another(job.recipe));
	}

	onDestroy(() => onlay(null));

	function take(): void {
		if (!other || !mine) return;
		const corner = at || corners[0]!;
		const given = other.edges.find((e) => e.start === corner)!.curve[0]!;
		const step = newStep('combine_lines', {
			piece: other.name,
			at: corner,
			given_at: given,
			lines: taken.map((along) => ({ along, points: runOf(other, along) })),
			source: garment,
		});
		open = false;
		under(null);
		ontake(step);
	}
</script>

<p class="way">
	<button class="button small" aria-expanded={open} onclick={show}
		>{open ? 'Lift the other pattern off' : 'Lay another pattern over this one'}</button
	>
</p>
{#if open}
	<div class="other">
		<label for="other-job">Whose lines</label>
		<select id="other-job" class="field" onchange={(e) => lay(e.currentTarget.value)}>
			<option value="">choose a job</option>
			{#each tickets as ticket (ticket.id)}<option value={ticket.id}
					>{ticket.garment}, for {ticket.wearer}</option
				>{/each}
		</select>
		{#if laid?.problem}
			<p class="note">{spoken(laid.problem.message)} {spoken(laid.problem.fix)}</p>
		{:else if laid?.preview && !shared.length}
			<p class="note">That pattern has no piece of the same name: nothing can be taken from it.</p>
		{:else if other}
			<label for="other-piece">Piece</label>
			<select
				id="other-piece"
				class="field"
				value={other.name}
				onchange={(e) => (pieceName = e.currentTarget.value)}
			>
				{#each shared as piece (piece.name)}<option value={piece.name}>{piece.title}</option>{/each}
			</select>
			<label for="other-at">Laid together at</label>
			<select
				id="other-at"
				class="field"
				value={at || corners[0]}
				onchange={(e) => (at = e.currentTarget.value)}
			>
				{#each corners as corner (corner)}<option value={corner}>{lineName(corner)}</option>{/each}
			</select>
			<fieldset>
				<legend>Lines that count from it</legend>
				{#each lines as line (line)}
					<label class="line">
						<input
							type="checkbox"
							checked={taken.includes(line)}
							onchange={(e) =>
								(taken = e.currentTarget.checked ? [...taken, line] : taken.filter((l) => l !== line))}
						/>
						{lineName(line)}
					</label>
				{/each}
			</fieldset>
			<button class="button main" disabled={!taken.length} onclick={take}>Take these lines</button>
		{/if}
	</div>
{/if}

<style>
	.way {
		margin: 0.8rem 0 0.4rem;
	}
	.other {
		border: 1px solid var(--rule);
		border-radius: var(--radius-base);
		padding: 0.6rem 0.8rem;
	}
	.other > label {
		display: block;
		margin-top: 0.3rem;
		font-size: 0.95rem;
	}
	select {
		width: 100%;
	}
	fieldset {
		border: 0;
		padding: 0.4rem 0;
		margin: 0;
	}
	.line {
		display: flex;
		gap: 0.5rem;
	}
</style>
