<!-- A finding noted at the fitting: how much, on which half, in whose words. The paper change is thought over at the table. -->
<script lang="ts">
	import { freshName, type Half, type Kind } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import { allRead } from '../../lib/parts/reads';

	interface Props {
		kind: Kind;
		/** Which of its amounts are asked for on this garment. */
		asked: readonly string[];
		round: number;
		movement: string;
		ondone: () => void;
		onleave: () => void;
	}
	let { kind, asked, round, movement, ondone, onleave }: Props = $props();

	const desk = getDesk();
	const inputs = $derived(kind.inputs.filter((input) => asked.includes(input.symbol)));
	// svelte-ignore state_referenced_locally
	let amounts = $state<Record<string, number>>(
		Object.fromEntries(kind.inputs.map((input) => [input.symbol, input.default])),
	);
	let taken = $state<'whole' | 'pinch'>('whole');
	// svelte-ignore state_referenced_locally
	let side = $state<Half>(kind.one_half ? 'left' : 'both');
	let counted = $state<'around' | 'each_side' | null>(null);
	let words = $state('');
	const uid = freshName('f');
	const HALVES: Half[] = ['both', 'left', 'right'];
	const halves = $derived(kind.one_half ? HALVES.slice(1) : HALVES);
	const pinchable = $derived(inputs.some((input) => input.pinch));

	const countable = $derived(side === 'both' && inputs.some((input) => input.counted !== 'here'));

	async function note(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (!(await allRead())) return;
		const given = Object.fromEntries(
			inputs.map((input) => [input.symbol, { text: String(amounts[input.symbol]), unit: 'cm' as const }]),
		);
		const found = {
			uid,
			kind: kind.key,
			side,
			movement,
			words,
			given,
			taken,
			counted: countable ? counted : null,
			piece: '',
			line: '',
		};
		if (await desk.deeds.record(round, found, kind.seen)) ondone();
	}
</script>

<form onsubmit={note}>
	<h3>{kind.seen}</h3>
	{#each inputs as input, i (input.symbol)}
		<NumberField
			label={input.label}
			labelled="above"
			value={amounts[input.symbol]!}
			unit={input.unit}
			low={input.low}
			high={input.high}
			live
			other
			autofocus={i === 0}
			onvalue={(value) => (amounts[input.symbol] = value)}
		/>
	{/each}
	{#if pinchable}
		<div class="choice" role="group" aria-label="How it was measured">
			<label><input type="radio" bind:group={taken} value="whole" /> whole cloth taken out</label>
			<label><input type="radio" bind:group={taken} value="pinch" /> folded pinch (half of it)</label>
		</div>
	{/if}
	<div class="choice" role="group" aria-label="On which half">
		{#each halves as half (half)}
			<label><input type="radio" bind:group={side} value={half} /> {half}</label>
		{/each}
	</div>
	<input
		class="field words"
		bind:value={words}
		aria-label="The wearer’s words"
		placeholder="the wearer’s words"
	/>
	<div class="deeds">
		<button class="button main" disabled={desk.deeds.busy}>Note it <kbd>Enter</kbd></button>
		<button class="button" type="button" onclick={onleave}>Something else <kbd>Esc</kbd></button>
	</div>
</form>

<style>
	form {
		display: flex;
		flex-direction: column;
		gap: 0.6rem;
		max-width: 34rem;
		font-size: 1.15rem;
	}
	h3 {
		margin: 0;
		font-size: 1.3rem;
	}
	.choice {
		display: flex;
		flex-wrap: wrap;
		gap: 1.2rem;
	}
	.choice label {
		display: flex;
		gap: 0.4rem;
		align-items: center;
		min-height: 2.4rem;
	}
	.choice input {
		width: 1.3rem;
		height: 1.3rem;
	}
	form :global(input.figures) {
		width: 8rem;
		min-height: 3.2rem;
		font-size: 1.6rem;
	}
	.words {
		min-height: 2.8rem;
	}
	.deeds {
		display: flex;
		gap: 0.7rem;
	}
	kbd {
		font-family: inherit;
		font-size: 0.8rem;
		padding: 0 0.35rem;
		border: 1px solid currentColor;
		border-radius: 4px;
		opacity: 0.7;
	}
</style>
