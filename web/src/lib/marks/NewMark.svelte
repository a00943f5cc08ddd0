<!-- The next mark: typed without the pointer. In the empty field c, d, n, s or h chooses its kind; Enter goes on. -->
<script lang="ts">
	import type { Mark } from '../api/client';
	import NumberField from '../parts/NumberField.svelte';
	import { allRead } from '../parts/reads';
	import { KINDS, linesIn, type Kind } from './marks';

	interface Props {
		number: number;
		kind: Kind;
		line?: string;
		/** What a mark can be here. */
		kinds?: readonly Kind[];
		/** Whether it says on which lines it lies. */
		named?: boolean;
		/** Whether the typing goes on here. */
		autofocus: boolean;
		onadd: (mark: Mark) => void;
	}
	let {
		number,
		kind: first,
		line: usual = '',
		kinds = KINDS,
		named = true,
		autofocus,
		onadd,
	}: Props = $props();

	// What is offered at first; what is typed counts from then on.
	// svelte-ignore state_referenced_locally
	let kind = $state<Kind>(first);
	// svelte-ignore state_referenced_locally
	let line = $state(usual);
	let across = $state<number | null>(null);
	let along = $state<number | null>(null);
	let missing = $state('');
	let form: HTMLFormElement;

	const LETTERS: Record<string, Kind> = {
		c: 'cross',
		x: 'cross',
		d: 'dot',
		n: 'notch',
		s: 'slash',
		h: 'dash',
	};

	function choose(wanted: Kind): void {
		// At a corner another line begins: its name is asked for.
		const corner = wanted === 'cross' || wanted === 'dash';
		if (corner && line && !line.includes('+')) line = `${line}+`;
		if (!corner) line = line.split('+')[0]!;
		kind = wanted;
	}

	function key(event: KeyboardEvent): void {
		const field = event.target as HTMLInputElement;
		if (event.altKey || event.ctrlKey || event.metaKey || !field.matches('[data-new] input')) return;
		const inNumbers = field.classList.contains('figures');
		const wanted = LETTERS[event.key.toLowerCase()];
		if (inNumbers && !field.value && wanted && kinds.includes(wanted)) {
			event.preventDefault();
			choose(wanted);
		} else if (event.key === 'Enter' && inNumbers && along === null) {
			const inputs = [...form.querySelectorAll<HTMLInputElement>('input.figures')];
			if (field === inputs[0]) {
				event.preventDefault();
				inputs[1]?.focus();
			}
		}
	}

	async function add(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (!(await allRead())) return;
		if (across === null || along === null) {
			missing = 'Type how far it lies across and along.';
			return;
		}
		onadd({ kind, across, along, lines: linesIn(line), name: '' });
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<form
	class="mark-row"
	class:plain={!named}
	data-new
	bind:this={form}
	onsubmit={add}
	onkeydown={key}
	aria-label="The next mark"
>
	<span class="figures number">{number}</span>
	<select
		class="field"
		aria-label="Next mark, kind"
		value={kind}
		onchange={(e) => choose(e.currentTarget.value as Kind)}
	>
		{#each kinds as one (one)}<option value={one}>{one}</option>{/each}
	</select>
	<NumberField
		label="Next mark, across"
		hideLabel
		bare
		{autofocus}
		value={across}
		unit="cm"
		onvalue={(value) => (across = value)}
		onempty={() => (across = null)}
	/>
	<NumberField
		label="Next mark, along"
		hideLabel
		bare
		value={along}
		unit="cm"
		onvalue={(value) => (along = value)}
		onempty={() => (along = null)}
	/>
	{#if named}
		<input
			class="field line"
			aria-label="Next mark, lines"
			list="drape-lines"
			autocomplete="off"
			bind:value={line}
		/>
	{/if}
	<button class="button small main" aria-label="Add the mark" title="Add (Enter)">+</button>
	{#if missing}<p role="alert">{missing}</p>{/if}
</form>

<style>
	.mark-row {
		padding: 0.35rem 0.2rem;
		border-top: 1px solid var(--rule);
	}
	p {
		grid-column: 2 / -1;
		margin: 0;
		color: var(--wax);
	}
</style>
