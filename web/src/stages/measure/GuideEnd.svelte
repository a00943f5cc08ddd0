<!-- The end of a guided taking: what is doubtful, what was skipped, what was read only once, and keeping the sheet. -->
<script lang="ts">
	import type { Measure } from '../../lib/api/client';
	import Doubts from './Doubts.svelte';
	import type { SheetTaking } from './sheet.svelte';
	import { againAt } from './way';

	interface Props {
		sheet: SheetTaking;
		order: Measure[];
		twice: Measure[];
		keepWords: string;
		onkeep: () => void;
		onleave: () => void;
		ongo: (place: string) => void;
	}
	let { sheet, order, twice, keepWords, onkeep, onleave, ongo }: Props = $props();

	const done = $derived(order.filter((m) => sheet.isTaken(m.symbol)).length);
	const skipped = $derived(order.filter((m) => !sheet.isTaken(m.symbol)));
</script>

<h2>{done} of {order.length} taken</h2>
<Doubts {sheet} ongo={(s) => ongo(againAt(s))} />
{#if skipped.length}
	<p>
		Skipped:
		{#each skipped as m, i (m.symbol)}<button class="link" onclick={() => ongo(m.symbol)}
				>{m.name.toLowerCase()}</button
			>{i < skipped.length - 1 ? ', ' : '.'}
		{/each}
		<span class="soft">What is not taken is estimated.</span>
	</p>
{/if}
{#if twice.length}
	<p>
		Still read once, with nothing to vouch for it:
		{#each twice as m, i (m.symbol)}<button class="link" onclick={() => ongo(againAt(m.symbol))}
				>{m.name.toLowerCase()}</button
			>{i < twice.length - 1 ? ', ' : '.'}
		{/each}
	</p>
{/if}
<div class="deeds">
	<button class="button main" data-first disabled={sheet.busy || !sheet.review?.can_draft} onclick={onkeep}
		>{keepWords}</button
	>
	<button class="button" onclick={onleave}>Back to the sheet</button>
</div>

<style>
	.link {
		text-decoration: underline;
		cursor: pointer;
	}
</style>
