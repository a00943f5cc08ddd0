<!-- The blocks that are drafted together: what stands on what follows, and nothing clothes the body twice. -->
<script lang="ts">
	import type { Block } from '../../lib/api/client';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { getDesk } from '../../lib/desk/context';
	import { adding, blocksOf, standing, withBlocks } from '../../lib/desk/recipe';
	import Halves from './Halves.svelte';
	import Notices from './Notices.svelte';
	import Steps from './Steps.svelte';

	const desk = getDesk();
	const all = $derived(shelf.all?.blocks ?? []);
	/** Whether there are given pieces: then no block is needed. */
	const given = $derived(!!desk.job?.recipe.given.panels.length);
	const chosen = $derived(desk.trial.recipe ? blocksOf(desk.trial.recipe) : []);

	function title(key: string): string {
		return all.find((block) => block.key === key)?.title.toLowerCase() ?? key;
	}

	async function toggle(block: Block, box: HTMLInputElement): Promise<void> {
		const on = box.checked;
		const left = chosen.filter((key) => key !== block.key);
		const next = on ? adding(all, chosen, block.key) : standing(all, left);
		if (next.length || given)
			await desk.deeds.keep(
				(recipe) => withBlocks(recipe, next),
				on ? `drafted with ${title(block.key)}` : `without ${title(block.key)}`,
			);
		// What was refused is not chosen, whatever the box says by now.
		box.checked = chosen.includes(block.key);
	}
</script>

<fieldset class="ticks">
	<legend>Drafted together</legend>
	{#each all as block (block.key)}
		{@const on = chosen.includes(block.key)}
		<label>
			<input
				type="checkbox"
				checked={on}
				disabled={desk.deeds.busy || (on && chosen.length === 1 && !given)}
				onchange={(e) => toggle(block, e.currentTarget)}
			/>
			<span>
				{block.title}
				{#if block.stands_on.length}<em>set into {block.stands_on.map(title).join(' or ')}</em>{/if}
			</span>
		</label>
	{/each}
</fieldset>
<p class="soft">A block that would clothe the body twice takes the other’s place; its settings are kept.</p>
<Halves />
<Notices />
<Steps />

<style>
	.soft {
		margin: 0.5rem 0.3rem;
	}
</style>
