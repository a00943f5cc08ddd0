<!-- A sum's value changed where it stands: for this job, or as a house rule for all new jobs, with the reason. -->
<script lang="ts">
	import { answered, api, asProblem, type Sum } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { withValue } from '../../lib/desk/recipe';
	import { reading, shown, spoken, typed } from '../../lib/units.svelte';
	import { inWords } from '../../lib/words';

	interface Props {
		sum: Sum;
		onhouse: () => void;
		onclose: () => void;
	}
	let { sum, onhouse, onclose }: Props = $props();

	const desk = getDesk();
	const id = $props.id();
	const isLength = $derived(sum.unit === 'cm');
	// svelte-ignore state_referenced_locally
	let text = $state(isLength ? typed(sum.value, reading.unit) : String(Math.round(sum.value * 1000) / 1000));
	// svelte-ignore state_referenced_locally
	let reason = $state(desk.recipe?.why?.[sum.symbol] ?? '');
	let error = $state('');
	const set = $derived(sum.state === 'overridden' || sum.state === 'house');

	async function read(): Promise<number | null> {
		if (isLength) {
			return (await answered(api.POST('/api/lengths', { body: { text, unit: reading.unit } }))).cm;
		}
		const value = Number(text.replace(',', '.'));
		if (text.trim() && !Number.isNaN(value)) return value;
		error = `“${text}” is not a number.`;
		return null;
	}

	async function change(asHouseRule: boolean): Promise<void> {
		error = '';
		if (!reason.trim()) {
			error = 'Write a word on why: in a few weeks you will want to know.';
			return;
		}
		try {
			const value = await read();
			if (value === null) return;
			if (asHouseRule) {
				const path = { symbol: sum.symbol };
				await answered(api.PUT('/api/house-rules/{symbol}', { params: { path }, body: { value, reason } }));
				onhouse();
			}
			const words = `${sum.label}: ${isLength ? shown(value) : `${value}${sum.unit}`}, ${reason.trim()}`;
			if (await desk.keep((recipe) => withValue(recipe, sum.symbol, value, reason.trim()), words)) onclose();
		} catch (failure) {
			const problem = asProblem(failure);
			error = `${problem.message} ${problem.mend}`;
		}
	}

	async function reset(): Promise<void> {
		if (await desk.keep((recipe) => withValue(recipe, sum.symbol, null), `${sum.label}: back to the rule`))
			onclose();
	}
</script>

<form
	class="editor"
	onsubmit={(event) => {
		event.preventDefault();
		void change(false);
	}}
>
	{#if sum.reason}<p class="soft">{spoken(sum.reason)}</p>{/if}
	{#if sum.formula}<p class="soft figures">The rule: {inWords(sum.formula)}</p>{/if}
	<p class="soft">Where it comes from: {sum.source || 'common practice, no single source'}.</p>
	<label for="{id}-value">Set to</label>
	<span>
		<!-- svelte-ignore a11y_autofocus -->
		<input id="{id}-value" class="field figures" autocomplete="off" autofocus bind:value={text} />
		{isLength ? reading.unit : sum.unit}
	</span>
	<label for="{id}-why">Because</label>
	<input id="{id}-why" class="field" autocomplete="off" maxlength="500" bind:value={reason} />
	{#if error}<p class="error" role="alert">{error}</p>{/if}
	<div class="deeds">
		<button class="button small main" disabled={desk.busy}>For this job</button>
		<button class="button small" type="button" disabled={desk.busy} onclick={() => change(true)}
			>As a house rule too</button
		>
		{#if set}
			<button class="button small" type="button" disabled={desk.busy} onclick={reset}>Back to the rule</button
			>
		{/if}
		<button class="button small" type="button" onclick={onclose}>Leave it</button>
	</div>
</form>

<style>
	.editor {
		grid-column: 1 / -1;
		display: grid;
		grid-template-columns: 5rem 1fr;
		gap: 0.35rem 0.6rem;
		align-items: center;
		padding: 0.4rem 0 0.3rem;
	}
	.editor input {
		min-height: 2rem;
	}
	span input {
		width: 6rem;
		text-align: right;
	}
	p,
	.deeds {
		grid-column: 1 / -1;
		margin: 0;
	}
	.deeds {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem;
	}
	.soft {
		color: var(--ink-soft);
		font-size: 0.9rem;
	}
	.error {
		color: var(--wax);
	}
</style>
