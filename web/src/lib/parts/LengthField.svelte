<!-- A length as it is typed: `37 1/2`, `37.5`, `95.2cm`, `14"`. The core reads it; the field shows it in the other unit. -->
<script lang="ts">
	import { answered, api, asProblem } from '../api/client';
	import { Latest } from '../api/latest';
	import { reading, show } from '../units.svelte';

	interface Props {
		label: string;
		text: string;
		/** Told the length in cm as soon as the text reads as one. */
		onlength?: (cm: number, text: string) => void;
		/** Told when the person is done with the field. */
		ondone?: () => void;
		hideLabel?: boolean;
		id?: string;
	}
	let {
		label,
		text = $bindable(),
		onlength = () => {},
		ondone = () => {},
		hideLabel = false,
		id,
	}: Props = $props();

	const own = $props.id();
	let error = $state('');
	let cm = $state<number | null>(null);
	const other = $derived(reading.unit === 'cm' ? 'in' : 'cm');

	const reader = new Latest<string, number>(
		async (wish) =>
			(await answered(api.POST('/api/lengths', { body: { text: wish, unit: reading.unit } }))).cm,
		(result, wish) => {
			if (wish !== text) return;
			cm = result;
			error = '';
			onlength(result, wish);
		},
		(failure) => {
			cm = null;
			const problem = asProblem(failure);
			error = problem.offline ? '' : `${problem.message} ${problem.mend}`;
		},
	);

	function read(): void {
		if (text.trim()) reader.wish(text);
		else {
			error = '';
			cm = null;
		}
	}
</script>

<div class="length">
	<label for={id ?? own} class:sr-only={hideLabel}>{label}</label>
	<span class="row">
		<input
			id={id ?? own}
			class="field figures"
			inputmode="text"
			autocomplete="off"
			bind:value={text}
			oninput={read}
			onchange={ondone}
			onkeydown={(e) => e.key === 'Enter' && ondone()}
			aria-invalid={error ? 'true' : undefined}
			aria-describedby={error ? `${own}-error` : undefined}
		/>
		<span class="unit">{reading.unit}</span>
		{#if cm !== null}<span class="other figures">{show(cm, other)} {other}</span>{/if}
	</span>
	{#if error}<p class="error" id="{own}-error">{error}</p>{/if}
</div>

<style>
	.row {
		display: flex;
		align-items: baseline;
		gap: 0.4rem;
	}
	input {
		width: 6.5rem;
		font-size: 1.1rem;
	}
	.unit,
	.other {
		color: var(--ink-soft);
	}
	.other {
		font-size: 0.9rem;
	}
	.error {
		color: var(--wax);
		margin: 0.2rem 0 0;
		font-size: 0.9rem;
	}
</style>
