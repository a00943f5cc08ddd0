<!-- Combine: another job's pattern laid over a piece, on this wearer's measures; line by line, which one counts. -->
<script lang="ts">
	import { onDestroy } from 'svelte';
	import { api, type Job, type Piece, type Step, type Ticket } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { operations } from '../../lib/desk/operations.svelte';
	import { newStep } from '../../lib/desk/recipe';
	import type { Trial } from '../../lib/desk/trial.svelte';
	import { spoken } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';
	import { cornerAt, corners, lines, pairs, runOf, shifted } from './combining';

	interface Props {
		/** Told what is laid under the pattern, each piece named as the one that it lies under; null when it is taken away. */
		onlay: (pieces: Piece[] | null) => void;
		ontake: (step: Step) => void;
	}
	let { onlay, ontake }: Props = $props();

	const desk = getDesk();
	void operations.load();
	let open = $state(false);
	const bench = desk.reads<Ticket[]>();
	const tickets = $derived((bench.value ?? []).filter((ticket) => ticket.id !== desk.job?.id));
	let laid = $state.raw<Trial | null>(null);
	let garment = $state('');
	let pieceName = $state('');
	let at = $state('');
	let taken = $state<string[]>([]);

	const shared = $derived(pairs(desk.trial.pieces, laid?.pieces ?? []));
	const pair = $derived(shared.find(({ mine }) => mine.name === pieceName) ?? shared[0] ?? null);
	const meeting = $derived(pair ? corners(pair.mine, pair.other) : []);
	const common = $derived(pair ? lines(pair.mine, pair.other) : []);
	/** The other pattern as it is laid under: its pieces by the names of those that they lie under. */
	const lying = $derived(
		shared.map(({ mine, other }) => {
			const corner =
				(mine === pair?.mine && meeting.find((one) => one.mine === at)) || corners(mine, other)[0];
			if (!corner) return { ...other, name: mine.name };
			const [x, y] = cornerAt(mine, corner.mine);
			const [ox, oy] = cornerAt(other, corner.other);
			return shifted({ ...other, name: mine.name }, [x - ox, y - oy]);
		}),
	);
	$effect(() => onlay(laid && !laid.problem ? lying : null));

	function show(): void {
		open = !open;
		if (open) void bench.load(api.GET('/api/bench'));
		else laid = null;
	}

	async function lay(id: string): Promise<void> {
		taken = [];
		pieceName = '';
		laid = null;
		if (!id) return;
		const job = await desk.ask<Job>(api.GET('/api/jobs/{job_id}', { params: { path: { job_id: id } } }));
		if (!job) return;
		garment = job.garment;
		laid = desk.another(job.recipe);
	}

	onDestroy(() => onlay(null));

	function take(): void {
		const corner = meeting.find((one) => one.mine === at) ?? meeting[0];
		if (!pair || !corner) return;
		const params = {
			piece: pair.mine.name,
			at: corner.mine,
			given_at: cornerAt(pair.other, corner.other),
			lines: common
				.filter((line) => taken.includes(line.mine))
				.map((line) => ({ along: line.mine, points: runOf(pair.other, line.other) })),
			source: garment,
		};
		const step = newStep('combine_lines', params, { version: operations.of('combine_lines')?.version });
		open = false;
		laid = null;
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
		{:else if laid?.preview && !pair}
			<p class="note">
				That pattern has no piece for the same part of the body: nothing can be taken from it.
			</p>
		{:else if pair}
			<label for="other-piece">Piece</label>
			<select
				id="other-piece"
				class="field"
				value={pair.mine.name}
				onchange={(e) => (pieceName = e.currentTarget.value)}
			>
				{#each shared as { mine } (mine.name)}<option value={mine.name}>{mine.title}</option>{/each}
			</select>
			<label for="other-at">Laid together at</label>
			<select
				id="other-at"
				class="field"
				value={at || meeting[0]?.mine}
				onchange={(e) => (at = e.currentTarget.value)}
			>
				{#each meeting as { mine } (mine)}<option value={mine}>{lineName(mine)}</option>{/each}
			</select>
			<fieldset>
				<legend>Lines that count from it</legend>
				{#each common as { mine: line } (line)}
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
			<button class="button main" disabled={!taken.length || !meeting.length} onclick={take}
				>Take these lines</button
			>
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
