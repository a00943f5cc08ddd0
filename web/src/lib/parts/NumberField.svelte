<!-- A number as it is typed: `37 1/2`, `37.5`, `95.2cm`, `14"`, `1/2`, `30%`. The core reads it, and says what it may be. -->
<script lang="ts">
	import { onDestroy, type Snippet } from 'svelte';
	import { answered, api, asProblem, type NumberRead } from '../api/client';
	import { Latest } from '../api/latest';
	import { reading, show, spoken, typed } from '../units.svelte';
	import { forget, reads } from './reads';

	interface Props {
		label: string;
		/** In cm where it is a length; null where there is none yet. */
		value: number | null;
		/** `cm` for a length, which is shown and typed in the reader's unit; else what stands behind the number. */
		unit: string;
		low?: number | null;
		high?: number | null;
		/** Told the number once it is typed and read. */
		onvalue: (value: number) => void;
		/** Told that the field was emptied; without it, an emptied field shows its number again. */
		onempty?: (() => void) | null;
		/** Whether it is told while it is typed, not only when that is done. */
		live?: boolean;
		/** Whether a length is shown in the other unit too. */
		other?: boolean;
		hideLabel?: boolean;
		/** Whether the unit is left out: a column of numbers says it once, at its head. */
		bare?: boolean;
		/** Where the label stands. */
		labelled?: 'above' | 'beside';
		title?: string;
		autofocus?: boolean;
		/** What stands before the field: a slider, a way back. */
		before?: Snippet;
	}
	let {
		label,
		value,
		unit,
		low = null,
		high = null,
		onvalue,
		onempty = null,
		live = false,
		other = false,
		hideLabel = false,
		bare = false,
		labelled = 'beside',
		title,
		autofocus = false,
		before,
	}: Props = $props();

	const id = $props.id();
	/** What is being typed; null while the field shows its number. */
	let editing = $state<string | null>(null);
	let error = $state('');
	const isLength = $derived(unit === 'cm');
	const text = $derived(
		editing ??
			(value === null
				? ''
				: isLength
					? `${value < 0 ? '-' : ''}${typed(Math.abs(value), reading.unit)}`
					: String(Math.round(value * 1000) / 1000)),
	);
	const otherUnit = $derived(reading.unit === 'cm' ? 'in' : 'cm');

	const reader = new Latest<{ text: string; done: (read: boolean) => void }, NumberRead>(
		async ({ text }) => {
			// In a field of per cent, 30 and 30 % are the same.
			const bare = unit.startsWith('%') ? text.replace(/\s*%$/, '') : text;
			const body = { text: bare, unit: isLength ? reading.unit : null, low, high };
			return answered(api.POST('/api/numbers', { body }));
		},
		(found, wish) => {
			error = spoken(found.error ?? '');
			const value = found.value ?? null;
			// Typed on meanwhile: the newer reading counts.
			if (value !== null && wish.text === editing?.trim()) {
				if (!live) editing = null;
				onvalue(value);
			}
			wish.done(value !== null);
		},
		(failure, wish) => {
			const problem = asProblem(failure);
			error = `${spoken(problem.message)} ${spoken(problem.fix)}`;
			wish.done(false);
		},
	);

	/** What settles a reading that a newer one took the place of. */
	let settle: (read: boolean) => void = () => {};

	function read(): void {
		const entered = editing?.trim();
		if (entered === undefined) return;
		settle(true);
		if (entered) {
			const read = new Promise<boolean>((done) => (settle = done));
			void reads(id, read);
			reader.wish({ text: entered, done: settle });
			return;
		}
		error = '';
		forget(id);
		if (!live) editing = null;
		onempty?.();
	}

	/** The field shows the number itself again, not what was typed. */
	export function reset(): void {
		editing = null;
		error = '';
		forget(id);
	}

	function focused(input: HTMLInputElement): void {
		if (autofocus) input.focus();
	}

	onDestroy(() => {
		settle(true);
		forget(id);
	});
</script>

<div class="number {labelled}" {title}>
	<label for={id} class:sr-only={hideLabel}>{label}</label>
	<span class="row">
		{@render before?.()}
		<input
			{id}
			class="field figures"
			inputmode="text"
			autocomplete="off"
			value={text}
			use:focused
			oninput={(e) => {
				editing = e.currentTarget.value;
				if (live) read();
			}}
			onchange={read}
			onkeydown={(e) => e.key === 'Enter' && read()}
			aria-invalid={error ? 'true' : undefined}
			aria-describedby={error ? `${id}-error` : undefined}
		/>
		<span class="unit" class:sr-only={bare}>{isLength ? reading.unit : unit}</span>
		{#if other && isLength && value !== null}<span class="other figures"
				>{show(value, otherUnit)} {otherUnit}</span
			>{/if}
	</span>
	{#if error}<p id="{id}-error" class="error" role="alert">{error}</p>{/if}
</div>

<style>
	.beside {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		align-items: center;
		gap: 0.2rem 0.6rem;
	}
	.above label {
		display: block;
		font-size: 0.95rem;
	}
	.row {
		display: flex;
		align-items: center;
		gap: 0.4rem;
	}
	input {
		width: 4.8rem;
	}
	.beside input {
		text-align: right;
		min-height: 2rem;
	}
	.unit {
		min-width: 1.4rem;
		color: var(--ink-soft);
	}
	.other {
		color: var(--ink-soft);
		font-size: 0.9rem;
	}
	.error {
		flex-basis: 100%;
		margin: 0.15rem 0 0;
		color: var(--wax);
		font-size: 0.9rem;
	}
	.beside .error {
		text-align: right;
	}
</style>
