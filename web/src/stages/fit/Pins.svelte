<!-- Pins counted into a muslin, or out of it again: as many must come out as went in. -->
<script lang="ts">
	import type { Round } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';

	let { round, which, large = false }: { round: Round; which: 'in' | 'out'; large?: boolean } = $props();

	const desk = getDesk();
	const id = $props.id();
	const MOST = 1000;
	const count = $derived(which === 'in' ? round.pins_in : round.pins_out);
	let typed = $state<string | null>(null);
	const wrong = $derived(typed !== null && typed.trim() !== '' && !valid(typed));

	function valid(text: string): boolean {
		return /^\d+$/.test(text.trim()) && Number(text) <= MOST;
	}

	async function keep(): Promise<void> {
		if (typed === null || !valid(typed)) return;
		const pins = Number(typed);
		if (await desk.deeds.seeTo(round.number, { [`pins_${which}`]: pins }, `count ${pins} pins ${which}`))
			typed = null;
	}
</script>

<div class="pins" class:large>
	<label for={id}>Pins counted {which}</label>
	<input
		{id}
		class="field figures"
		inputmode="numeric"
		autocomplete="off"
		value={typed ?? count ?? ''}
		oninput={(e) => (typed = e.currentTarget.value)}
		onchange={keep}
		onkeydown={(e) => e.key === 'Enter' && keep()}
		aria-invalid={wrong ? 'true' : undefined}
		aria-describedby={wrong ? `${id}-wrong` : undefined}
	/>
	{#if which === 'out' && round.pins_in !== null}
		<span class="soft" class:short={round.pins_out !== null && round.pins_out !== round.pins_in}
			>of {round.pins_in} that went in</span
		>
	{/if}
	{#if wrong}<p id="{id}-wrong" class="wrong" role="alert">Type a whole number, 0 to {MOST}.</p>{/if}
</div>

<style>
	.pins {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.2rem 0.5rem;
		margin: 0.4rem 0;
	}
	input {
		width: 4rem;
		min-height: 2rem;
	}
	.large {
		font-size: 1.3rem;
	}
	.large input {
		width: 6rem;
		font-size: 1.6rem;
	}
	.short,
	.wrong {
		color: var(--wax);
	}
	.wrong {
		flex-basis: 100%;
		margin: 0;
		font-size: 0.9rem;
	}
</style>
