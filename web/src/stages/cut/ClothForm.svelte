<!-- What is known of one cloth: its numbers, how it lies, what runs one way or repeats, a note and a swatch. -->
<script lang="ts">
	import { api, asForm, type Cloth } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import { REPEATS, SHARES, SHOP, SIZE, type NumberOfCloth } from './clothFields';
	import { FOLDS } from './words';

	interface Props {
		cloth: Cloth;
		/** Levels of the pieces that stripes can be matched at. */
		levels: string[];
		onchange: (by: Partial<Cloth>) => void;
	}
	let { cloth, levels, onchange }: Props = $props();
	const desk = getDesk();
	let picture = $state<HTMLInputElement>();

	async function photograph(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
		const file = event.currentTarget.files?.[0];
		event.currentTarget.value = '';
		if (!file) return;
		const call = api.POST('/api/swatches', { body: { file: '' }, bodySerializer: () => asForm(file) });
		const made = await desk.ask<{ swatch: string }>(call);
		if (made) onchange({ swatch: made.swatch });
	}
</script>

{#snippet numbers(fields: NumberOfCloth[])}
	{#each fields as field (field.label)}
		<NumberField
			label={field.label}
			value={field.get(cloth)}
			unit={field.unit}
			low={field.low}
			high={field.high}
			onvalue={(value) => onchange(field.set(cloth, value))}
			onempty={field.empty ? () => onchange(field.empty!) : null}
		/>
	{/each}
{/snippet}

{#snippet tick(name: 'nap' | 'grainless' | 'washed', words: string)}
	<label class="tick">
		<input
			type="checkbox"
			checked={cloth[name]}
			onchange={(e) => onchange({ [name]: e.currentTarget.checked })}
		/>
		{words}
	</label>
{/snippet}

<label class="line">
	<span>Name</span>
	<input
		class="field"
		value={cloth.name}
		maxlength="120"
		onchange={(e) => onchange({ name: e.currentTarget.value })}
	/>
</label>
{@render numbers(SIZE)}
<label class="line">
	<span>Folded</span>
	<select
		class="field"
		value={cloth.fold}
		onchange={(e) => onchange({ fold: e.currentTarget.value as Cloth['fold'] })}
	>
		{#each FOLDS as [value, words] (value)}<option {value}>{words}</option>{/each}
	</select>
</label>
{@render tick('nap', 'Nap, pile, or a print that runs one way')}
{@render tick('grainless', 'No grain at all (felt, fused interfacing)')}
<details open={!!(cloth.repeat[0] || cloth.repeat[1])}>
	<summary>Stripes and checks</summary>
	{@render numbers(REPEATS)}
	<label class="line">
		<span>Matched at the level</span>
		<select class="field" value={cloth.match} onchange={(e) => onchange({ match: e.currentTarget.value })}>
			<option value="">none</option>
			{#each levels as level (level)}<option value={level}>{level}</option>{/each}
		</select>
	</label>
</details>
<details>
	<summary>Stretch, shrinkage, price, and what is at hand</summary>
	{@render numbers(SHARES)}
	{@render tick('washed', 'Washed before it is cut')}
	{@render numbers(SHOP)}
</details>
<label class="line">
	<span>Note</span>
	<textarea
		class="field"
		rows="2"
		maxlength="2000"
		value={cloth.note}
		onchange={(e) => onchange({ note: e.currentTarget.value })}></textarea>
</label>
<div class="line">
	<span>Swatch</span>
	<span class="swatch">
		{#if cloth.swatch}
			<img src={`data:image/jpeg;base64,${cloth.swatch}`} alt={`Swatch of ${cloth.name || 'this cloth'}`} />
			<button class="button small" onclick={() => onchange({ swatch: '' })}>Take it off</button>
		{/if}
		<button class="button small" onclick={() => picture?.click()}>
			{cloth.swatch ? 'Another photo…' : 'Photo of a swatch…'}
		</button>
		<input
			bind:this={picture}
			type="file"
			accept="image/jpeg,image/png,image/webp"
			aria-label="A photo of the swatch"
			hidden
			onchange={(e) => void photograph(e)}
		/>
	</span>
</div>

<style>
	.line {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 0.5rem;
		align-items: center;
		padding: 0.15rem 0;
	}
	.line input,
	.line textarea {
		width: 13rem;
	}
	.tick {
		display: flex;
		gap: 0.5rem;
		align-items: center;
		padding: 0.25rem 0;
	}
	.swatch {
		display: flex;
		gap: 0.4rem;
		align-items: center;
	}
	img {
		width: 4.5rem;
		height: 4.5rem;
		object-fit: cover;
		border: 1px solid var(--rule);
	}
	summary {
		cursor: pointer;
		padding: 0.3rem 0;
		font-weight: 600;
	}
</style>
