<!-- Cutting the next muslin, or closing the one on the table. -->
<script lang="ts">
	import type { Round } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';

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
		if (await desk.deeds.closeMuslin(open!.number, note)) note = '';
	}
</script>

{#if open}
	<form onsubmit={close}>
		<h3>Done with muslin {open.number}?</h3>
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
	p {
		margin: 0;
		color: var(--ink-soft);
		font-size: 0.92rem;
	}
</style>
