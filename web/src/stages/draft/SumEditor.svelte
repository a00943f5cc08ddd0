<!-- A sum's value changed where it stands: for this job, or as a house rule for all new jobs, with the reason. -->
<script lang="ts">
	import { api, type HouseRule, type Sum } from '../../lib/api/client';
	import { Loaded } from '../../lib/api/loaded.svelte';
	import { getDesk } from '../../lib/desk/context';
	import { withValue } from '../../lib/desk/recipe';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { allRead } from '../../lib/parts/reads';
	import { shown, spoken } from '../../lib/units.svelte';

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
	let value = $state(sum.value);
	// svelte-ignore state_referenced_locally
	let reason = $state(desk.trial.recipe?.why?.[sum.symbol] ?? '');
	let error = $state('');
	const rule = new Loaded<HouseRule>();
	const set = $derived(sum.state === 'overridden' || sum.state === 'house');

	async function change(asHouseRule: boolean): Promise<void> {
		error = '';
		if (!reason.trim()) {
			error = 'Write a word on why: in a few weeks you will want to know.';
			return;
		}
		if (!(await allRead())) return;
		if (asHouseRule) {
			const params = { path: { symbol: sum.symbol } };
			if (!(await rule.load(api.PUT('/api/house-rules/{symbol}', { params, body: { value, reason } }))))
				return;
			onhouse();
		}
		const words = `${sum.label}: ${isLength ? shown(value) : `${value}${sum.unit}`}, ${reason.trim()}`;
		if (await desk.deeds.keep((recipe) => withValue(recipe, sum.symbol, value, reason.trim()), words))
			onclose();
	}

	async function reset(): Promise<void> {
		if (
			await desk.deeds.keep((recipe) => withValue(recipe, sum.symbol, null), `${sum.label}: back to the rule`)
		)
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
	{#if sum.written}<p class="soft figures">The rule: {spoken(sum.written)}</p>{/if}
	<p class="soft">Where it comes from: {sum.source || 'common practice, no single source'}.</p>
	<NumberField
		label="Set to"
		{value}
		unit={sum.unit}
		low={sum.low}
		high={sum.high}
		onvalue={(found) => (value = found)}
		autofocus
	/>
	<label for="{id}-why">Because</label>
	<input id="{id}-why" class="field" autocomplete="off" maxlength="500" bind:value={reason} />
	{#if error}<p class="error" role="alert">{error}</p>{/if}
	{#if rule.problem}<ProblemNote problem={rule.problem} />{/if}
	<div class="deeds">
		<button class="button small main" disabled={desk.deeds.busy}>For this job</button>
		<button class="button small" type="button" disabled={desk.deeds.busy} onclick={() => change(true)}
			>As a house rule too</button
		>
		{#if set}
			<button class="button small" type="button" disabled={desk.deeds.busy} onclick={reset}
				>Back to the rule</button
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
	.editor > :global(.number),
	.editor > :global(.note),
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
	.error {
		color: var(--wax);
	}
</style>
