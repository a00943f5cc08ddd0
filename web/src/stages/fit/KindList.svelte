<!-- What a muslin can show: by words, or at the place that was pointed at on the pieces. -->
<script lang="ts">
	import type { Kind, Piece } from '../../lib/api/client';
	import type { Subject } from '../../lib/table/picking';
	import { lineName } from '../../lib/words';
	import { at as lyingAt, grouped, searched } from './kinds';

	interface Props {
		kinds: Kind[];
		pieces: Piece[];
		/** What was pointed at on the table. */
		at: Subject | null;
		/** Whether only what lies at one place is listed. */
		narrowed: boolean;
		onchoose: (key: string) => void;
		/** Told to look at the whole garment again. */
		onleave: () => void;
	}
	let { kinds, pieces, at, narrowed, onchoose, onleave }: Props = $props();

	let typed = $state('');
	const here = $derived(lyingAt(kinds, at, pieces));
	const groups = $derived(grouped(searched(here, typed)));
	const place = $derived(
		at?.kind === 'line' || at?.kind === 'dart'
			? lineName(at.name)
			: (pieces.find((piece) => piece.name === at?.piece)?.title ?? ''),
	);
</script>

<h2>What does it show?</h2>
<p class="soft">Point at the figure or at a line on the table, or look for it:</p>
<input
	class="field"
	type="search"
	bind:value={typed}
	aria-label="Look for a finding"
	placeholder="gapes, tight, sleeve…"
/>
{#if narrowed}
	<p class="at">
		{place ? `At the ${place.toLowerCase()}` : 'At that spot'}
		<button class="button small" onclick={onleave}>Whole garment</button>
	</p>
{/if}
{#each groups as [title, found] (title)}
	<h3>{title}</h3>
	<ul class="kinds">
		{#each found as kind (kind.key)}
			<li><button onclick={() => onchoose(kind.key)}>{kind.seen}</button></li>
		{/each}
	</ul>
{:else}
	<p class="soft">
		{kinds.length ? 'Nothing of that is known here. Try another word.' : 'Looking at the garment…'}
	</p>
{/each}

<style>
	h2 {
		font-size: 1.1rem;
		margin: 0.4rem 0 0.2rem;
	}
	h3 {
		font-size: 0.95rem;
		margin: 0.7rem 0 0;
		color: var(--ink-soft);
	}
	.soft {
		margin: 0.2rem 0;
	}
	.field {
		width: 100%;
	}
	.at {
		display: flex;
		justify-content: space-between;
		align-items: baseline;
		margin: 0.5rem 0 0;
	}
	li button {
		width: 100%;
		text-align: left;
		padding: 0.45rem 0.4rem;
		border-bottom: 1px solid var(--rule);
		cursor: pointer;
	}
	li button:hover {
		background: var(--chalk-soft);
	}
</style>
