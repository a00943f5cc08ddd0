<!-- The plotter's queue: what waits, what the pen is at, what is done; a plot can be sent, stopped, taken off. -->
<script lang="ts">
	import type { Plot } from '../../lib/api/client';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { shown } from '../../lib/units.svelte';
	import type { Plotter } from './plotter.svelte';
	import { minutes } from './words';

	let { plotter }: { plotter: Plotter } = $props();
	$effect(() => {
		void plotter.watch();
		return () => plotter.leave();
	});

	let file = $state<HTMLInputElement>();

	const STANDS: Record<Plot['state'], string> = {
		waiting: 'waits',
		plotting: 'the pen is at it',
		done: 'done',
		stopped: 'stopped',
	};

	function chosen(event: Event & { currentTarget: HTMLInputElement }): void {
		const picked = event.currentTarget.files?.[0];
		if (picked) void plotter.sendFile(picked);
		event.currentTarget.value = '';
	}
</script>

<p class="soft">
	A simulated plotter with a roll {shown(plotter.state?.roll ?? 91.4)} wide: it takes plot files (HPGL) one after
	another, and shows what its pen drew. A real one takes the same file, saved under Pieces.
</p>
<div class="row">
	<button class="button main" disabled={plotter.busy} onclick={() => void plotter.sendPattern()}>
		Plot this pattern
	</button>
	<button class="button" disabled={plotter.busy} onclick={() => file?.click()}>Plot a file…</button>
	<input
		bind:this={file}
		type="file"
		accept=".plt,.hpgl,.hpg"
		aria-label="A plot file"
		hidden
		onchange={chosen}
	/>
</div>
{#if plotter.problem}<ProblemNote problem={plotter.problem} />{/if}
{#if plotter.state && !plotter.queue.length}<p class="soft">Nothing is in the queue.</p>{/if}
<ul>
	{#each plotter.queue as plot (plot.id)}
		<li class:shown={plotter.shown?.id === plot.id}>
			<button class="name" onclick={() => plotter.choose(plot)}>{plot.name}</button>
			<span class="soft">
				{STANDS[plot.state]}; {shown(plot.length)} of the roll; {plot.state === 'plotting'
					? `${minutes(plot.seconds - plot.drawn)} to go`
					: minutes(plot.seconds)}
			</span>
			{#if plot.state === 'plotting'}
				<progress max={plot.seconds} value={plot.drawn} aria-label={`${plot.name}, how far`}></progress>
			{/if}
			{#if plot.off_the_roll}
				<p class="note wrong">
					It reaches {shown(plot.off_the_roll)} beyond the paper: what lies there is lost. Take a wider roll, or
					print it on sheets.
				</p>
			{/if}
			<div class="row">
				{#if plot.state === 'plotting' || plot.state === 'waiting'}
					<button
						class="button small"
						aria-label={`Stop ${plot.name}`}
						disabled={plotter.busy}
						onclick={() => void plotter.stop(plot)}>Stop</button
					>
				{/if}
				{#if plot.state !== 'plotting'}
					<button
						class="button small"
						aria-label={`Take ${plot.name} out of the queue`}
						disabled={plotter.busy}
						onclick={() => void plotter.takeOff(plot)}>Take it off</button
					>
				{/if}
				<a class="button small" href={`/api/plotter/plots/${plot.id}/file`} download>Its file</a>
			</div>
		</li>
	{/each}
</ul>

<style>
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		margin: 0.4rem 0;
	}
	p {
		margin: 0.4rem 0;
	}
	li {
		padding: 0.4rem 0.5rem;
		border-bottom: 1px solid var(--rule);
	}
	li.shown {
		background: var(--chalk-soft);
	}
	.name {
		display: block;
		font-weight: 600;
		text-align: left;
	}
	progress {
		width: 100%;
		accent-color: var(--chalk);
	}
</style>
