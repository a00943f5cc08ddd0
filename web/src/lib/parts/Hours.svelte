<!-- The hours of a job: a clock that goes on while no page is open, or typed; and the note to look again. -->
<script lang="ts">
	import { getDesk } from '../desk/context';
	import { day, hours } from '../words';

	const desk = getDesk();
	const job = $derived(desk.job!);
	let typed = $state('');
	let note = $state('');
	const minutes = $derived(readTime(typed));
	let now = $state(Date.now());
	$effect(() => {
		if (!job.clock) return;
		const timer = setInterval(() => (now = Date.now()), 15_000);
		return () => clearInterval(timer);
	});
	const running = $derived(
		job.clock ? Math.max(Math.round((now - new Date(job.clock).getTime()) / 60_000), 0) : 0,
	);

	/** Return minutes as they are typed: `45`, `1:30`, `1.5 h`, `1 h 20`; null where they cannot be read. */
	function readTime(text: string): number | null {
		const said = text.trim().toLowerCase().replace('−', '-');
		let found = /^(-?)(\d+):(\d\d)$/.exec(said);
		if (found) return (found[1] ? -1 : 1) * (Number(found[2]) * 60 + Number(found[3]));
		found = /^(-?)([\d.]+) ?h(?:ours?|rs?)?(?: ?(\d+) ?(?:m|min)?)?$/.exec(said);
		if (found) return (found[1] ? -1 : 1) * Math.round(Number(found[2]) * 60 + Number(found[3] ?? 0));
		found = /^(-?\d+) ?(?:m|min)?$/.exec(said);
		return found ? Number(found[1]) : null;
	}

	async function keepTime(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (minutes === null) return;
		const kept = job.clock ? desk.deeds.clock(false, minutes) : desk.deeds.spend(minutes);
		if (await kept) typed = '';
	}

	async function keepNote(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (note.trim() && (await desk.deeds.lookAgain(note.trim()))) note = '';
	}
</script>

<div class="hours">
	<form onsubmit={keepTime}>
		<strong>Hours</strong>
		<span class="figures">{hours(job.minutes)}</span>
		{#if job.clock}
			<span class="running figures">and {hours(running)} on the clock</span>
			<button
				class="button small main"
				type="button"
				disabled={desk.deeds.busy}
				onclick={() => desk.deeds.clock(false)}>Stop the clock</button
			>
		{:else}
			<button
				class="button small"
				type="button"
				disabled={desk.deeds.busy}
				onclick={() => desk.deeds.clock(true)}>Start the clock</button
			>
		{/if}
		<input
			class="field figures"
			bind:value={typed}
			autocomplete="off"
			aria-label={job.clock ? 'Time worked, in place of the clock’s' : 'Time worked'}
			placeholder="45, 1:30, 1.5 h"
			aria-invalid={typed.trim() && minutes === null ? 'true' : undefined}
		/>
		<button class="button small" disabled={desk.deeds.busy || minutes === null}
			>{job.clock ? 'Stop with this' : 'Note it'}</button
		>
		{#if typed.trim() && minutes === null}
			<span class="wrong" role="alert">Type minutes, 1:30 or 1.5 h.</span>
		{/if}
	</form>
	<form onsubmit={keepNote}>
		{#if job.look_again}
			<span
				><strong>Look again</strong>
				{job.look_again_on ? day(job.look_again_on) : ''}: “{job.look_again}”</span
			>
			<button
				class="button small"
				type="button"
				disabled={desk.deeds.busy}
				onclick={() => desk.deeds.lookAgain('')}>Looked again</button
			>
		{:else}
			<input
				class="field note-field"
				bind:value={note}
				aria-label="Look again tomorrow"
				placeholder="look again tomorrow: at what?"
			/>
			<button class="button small" disabled={desk.deeds.busy || !note.trim()}>Look again tomorrow</button>
		{/if}
	</form>
</div>

<style>
	.hours {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		gap: 0.5rem 2rem;
		padding: 0.3rem 1.1rem 0.5rem;
	}
	form {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.5rem;
	}
	.field {
		width: 8.5rem;
		min-height: 2rem;
	}
	.note-field {
		width: 17rem;
	}
	.running {
		color: var(--chalk);
	}
	.wrong {
		color: var(--wax);
		font-size: 0.9rem;
	}
</style>
