<!-- Cutting the next muslin, or closing the one on the table. -->
<script lang="ts">
	import type { Round } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';

	import Pins from './Pins.svelte';

	let { open }: { open: Round | null } = $props();

	const desk = getDesk();
	let cloth = $state('');
	let worn = $state('');
	let note = $state('');
	const next = $derived((desk.job?.rounds.at(-1)?.number ?? 0) + 1);

	async function cut(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (await desk.deeds.cutMuslin(next, { cloth, worn })) cloth = worn = '';
	}

	async function close(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (await desk.deeds.closeMuslin(open!.number, note, pinLost)) {
			note = '';
			pinLost = false;
		}
	}
	let pinLost = $state(false);
	const pinsMissing = $derived(!!open && open.pins_in !== null && open.pins_in !== open.pins_out);
</script>

{#if open}
	<form onsubmit={close}>
		<h3>Done with muslin {open.number}?</h3>
		{#if open.pins_in !== null}<Pins round={open} which="out" />{/if}
		{#if pinsMissing}
			<label class="lost"
				><input type="checkbox" bind:checked={pinLost} /> Not all pins were found: close it all the same</label
			>
		{/if}
		<input class="field" bind:value={note} aria-label="A note to yourself" placeholder="a note to yourself" />
		<button class="button" disabled={desk.deeds.busy}>Close muslin {open.number}</button>
	</form>
{:else}
	<form onsubmit={cut}>
		<h3>Muslin {next}</h3>
		<p>The pattern as it is now is kept as cut. What the muslin shows is then put on the figure.</p>
		<input
			class="field"
			bind:value={cloth}
			aria-label="Cloth"
			placeholder="cloth, of the final’s weight and stretch"
		/>
		<input class="field" bind:value={worn} aria-label="Worn under it" placeholder="worn under it" />
		<button class="button main" disabled={desk.deeds.busy || !desk.trial.preview}>Cut muslin {next}</button>
	</form>
{/if}

<style>
	form {
		display: flex;
		flex-direction: column;
		gap: 0.4rem;
		margin: 0.8rem 0;
	}
	h3 {
		font-size: 1rem;
		margin: 0;
	}
	.lost {
		display: flex;
		gap: 0.4rem;
		font-size: 0.94rem;
	}
	p {
		margin: 0;
		color: var(--ink-soft);
		font-size: 0.92rem;
	}
</style>
