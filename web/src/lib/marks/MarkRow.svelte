<!-- One mark in the table: what it is, how far from the guides, on which lines, what it is called. -->
<script lang="ts">
	import type { Mark } from '../api/client';
	import NumberField from '../parts/NumberField.svelte';
	import { KINDS, linesIn, linesText, type Kind } from './marks';

	interface Props {
		mark: Mark;
		at: number;
		current: boolean;
		/** How far it lies off its line, where that is to be looked at. */
		odd?: boolean;
		/** What a mark can be here. */
		kinds?: readonly Kind[];
		/** Whether it says on which lines it lies, and what it is called. */
		named?: boolean;
		onchange: (change: Partial<Mark>) => void;
		onremove: () => void;
	}
	let { mark, at, current, odd = false, kinds = KINDS, named = true, onchange, onremove }: Props = $props();
	const name = $derived(`Mark ${at + 1}`);
</script>

<div
	class="mark-row"
	class:plain={!named}
	class:current
	class:odd
	role="group"
	aria-label={name}
	data-row={at}
>
	<span class="figures number">{at + 1}</span>
	<select
		class="field"
		aria-label="{name}, kind"
		value={mark.kind}
		onchange={(e) => onchange({ kind: e.currentTarget.value as Kind })}
	>
		{#each kinds as kind (kind)}<option value={kind}>{kind}</option>{/each}
	</select>
	<NumberField
		label="{name}, across"
		hideLabel
		bare
		value={mark.across}
		unit="cm"
		onvalue={(across) => onchange({ across })}
	/>
	<NumberField
		label="{name}, along"
		hideLabel
		bare
		value={mark.along}
		unit="cm"
		onvalue={(along) => onchange({ along })}
	/>
	{#if named}
		<input
			class="field line"
			aria-label="{name}, lines"
			list="drape-lines"
			autocomplete="off"
			value={linesText(mark)}
			onchange={(e) => onchange({ lines: linesIn(e.currentTarget.value) })}
		/>
	{/if}
	<button class="button small" aria-label="Remove mark {at + 1}" title="Remove" onclick={onremove}>×</button>
	{#if current && named}
		<label class="called">
			<span>called</span>
			<input
				class="field"
				autocomplete="off"
				maxlength="60"
				placeholder="nothing; “apex” marks the bust point"
				value={mark.name}
				onchange={(e) => onchange({ name: e.currentTarget.value.trim() })}
			/>
		</label>
	{/if}
</div>

<style>
	.current {
		background: var(--chalk-soft);
	}
	.odd .number {
		color: var(--wax);
		font-weight: 600;
	}
	.line {
		width: 100%;
	}
	.called {
		grid-column: 2 / -1;
		display: flex;
		align-items: center;
		gap: 0.5rem;
		color: var(--ink-soft);
	}
	.called input {
		flex: 1;
	}
</style>
