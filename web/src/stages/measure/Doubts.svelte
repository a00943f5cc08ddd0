<!-- What does not agree on the sheet, which measure to take again first, and what that would settle. -->
<script lang="ts">
	import type { Retake } from '../../lib/api/client';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { shown, spoken } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';
	import type { SheetTaking } from './sheet.svelte';

	let { sheet, ongo }: { sheet: SheetTaking; ongo: (symbol: string) => void } = $props();

	const review = $derived(sheet.review);
	const any = $derived(!!review && (review.contradictions.length > 0 || review.retake.length > 0));

	function low(symbol: string): string {
		return shelf.name(symbol).toLowerCase();
	}

	/** The lines of the draft that hang on a measure, where it is in the draft. */
	function affects(symbol: string): string {
		const effect = sheet.advice?.effects.find((e) => e.symbol === symbol);
		const lines = effect?.lines.slice(0, 4).map((line) => lineName(line.split(': ')[1] ?? '')) ?? [];
		return lines.length
			? `It moves: ${lines.join(', ')}.`
			: `It drives: ${shelf.measure(symbol)?.drives ?? ''}`;
	}

	function why(retake: Retake): string {
		if (retake.other_unit) return `It reads as if it were in the other unit: ${shown(retake.would_fit)}.`;
		if (retake.exchanged_with)
			return `It looks exchanged with ${low(retake.exchanged_with)}: two rows mixed up?`;
		const against = retake.disagrees_with.map(low);
		const fit = `About ${shown(retake.would_fit)} would go with the rest`;
		return against.length ? `${fit}; it disagrees most with ${against.join(', ')}.` : `${fit}.`;
	}
</script>

{#if any && review}
	<section class="note" aria-live="polite" data-doubts>
		<h2>{review.contradictions.length ? 'These do not agree' : 'One does not go with the rest'}</h2>
		{#if review.retake.length}
			<ol>
				{#each review.retake as retake, i (retake.symbol)}
					<li>
						{#if i === 0}Take again first:{:else}then:{/if}
						<button class="link" onclick={() => ongo(retake.symbol)}
							><strong>{shelf.name(retake.symbol)}</strong></button
						>. {why(retake)}
						<span class="soft">{affects(retake.symbol)}</span>
						{#if retake.explains.length > 1}
							<span class="soft">That would settle {retake.explains.length} of these at once.</span>
						{/if}
					</li>
				{/each}
			</ol>
		{/if}
		{#if review.contradictions.length}
			<ul>
				{#each review.contradictions as c (c.key)}
					<li>
						{c.message}. <span class="figures">{spoken(c.told)}</span>
						<span class="soft">{c.symbols.map(low).join(', ')}</span>
					</li>
				{/each}
			</ul>
		{/if}
	</section>
{/if}
{#if review?.moved.length}
	<section class="sheet moved">
		<h2>Moved since the last sheet</h2>
		<ul>
			{#each review.moved as m (m.symbol)}
				<li>
					{shelf.name(m.symbol)}: <span class="figures">{shown(m.before ?? 0)} → {shown(m.after ?? 0)}</span>
				</li>
			{/each}
		</ul>
	</section>
{/if}

<style>
	h2 {
		font-size: 1.1rem;
		margin: 0 0 0.3rem;
	}
	ol,
	ul {
		margin: 0 0 0.3rem;
		padding-left: 1.2rem;
	}
	ol {
		list-style: decimal;
	}
	ul {
		list-style: disc;
	}
	.link {
		text-decoration: underline;
		cursor: pointer;
	}
	.moved {
		padding: 0.7rem 0.9rem;
	}
</style>
