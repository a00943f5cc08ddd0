<!-- What can be done to the thing pointed at, by family. -->
<script lang="ts">
	import { api, type Offer } from '../../lib/api/client';
	import { Loaded } from '../../lib/api/loaded.svelte';
	import { getDesk } from '../../lib/desk/context';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { reading, spoken } from '../../lib/units.svelte';
	import type { Subject } from '../../lib/table/picking';

	interface Props {
		subject: Subject;
		label: string;
		onchoose: (offer: Offer) => void;
		onleave: () => void;
	}
	let { subject, label, onchoose, onleave }: Props = $props();

	const desk = getDesk();
	const asked = new Loaded<Offer[]>();
	const offers = $derived(asked.value);
	const problem = $derived(asked.problem);
	let sought = $state('');

	$effect(() => {
		if (!desk.job) return;
		const { id, sheet, recipe } = desk.job;
		const body = { sheet: sheet.id, recipe, job: id, unit: reading.unit, ...subject };
		void asked.load(api.POST('/api/offers', { body }));
	});

	const groups = $derived.by(() => {
		const found: Record<string, Offer[]> = {};
		for (const offer of offers ?? [])
			if (offer.words.toLowerCase().includes(sought.toLowerCase())) (found[offer.group] ??= []).push(offer);
		return Object.entries(found);
	});
</script>

<section class="offers" aria-label="What can be done: {label}">
	<p class="head">
		<strong>{label}</strong>
		<button class="button small" onclick={onleave}>Let go</button>
	</p>
	{#if problem}<ProblemNote {problem} />{/if}
	{#if offers === null}
		<p class="soft" role="status">Looking…</p>
	{:else if offers.length === 0}
		<p class="soft">Nothing can be done to this by itself: point at a dart, a seam or an edge.</p>
	{:else}
		{#if offers.length > 12}
			<input class="field wide" placeholder="find: neck, yoke, zip…" aria-label="Find" bind:value={sought} />
		{/if}
		{#each groups as [group, list] (group)}
			<h3>{group}</h3>
			<ul>
				{#each list as offer, i (i)}
					<li><button onclick={() => onchoose(offer)}>{spoken(offer.words)}</button></li>
				{/each}
			</ul>
		{/each}
	{/if}
</section>

<style>
	.offers {
		border: 1px solid var(--chalk);
		border-radius: var(--radius-base);
		background: var(--paper);
		padding: 0.5rem 0.8rem;
		margin-bottom: 0.8rem;
	}
	.head {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin: 0;
	}
	.wide {
		width: 100%;
		margin-top: 0.4rem;
	}
	h3 {
		font-size: 0.9rem;
		color: var(--ink-soft);
		margin: 0.5rem 0 0.1rem;
	}
	li button {
		width: 100%;
		text-align: left;
		padding: 0.2rem 0.4rem;
		border-radius: var(--radius-base);
		cursor: pointer;
	}
	li button:hover,
	li button:focus-visible {
		background: var(--chalk-soft);
	}
</style>
