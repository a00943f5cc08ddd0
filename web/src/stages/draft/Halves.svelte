<!-- Measures that were taken left and right apart: on wish they draft the halves apart, each with its difference. -->
<script lang="ts">
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { getDesk } from '../../lib/desk/context';
	import { withApart } from '../../lib/desk/recipe';
	import { shown } from '../../lib/units.svelte';

	const desk = getDesk();

	/** Left and right in cm, of each measure that has both, and of those that the recipe already draws apart. */
	const sides = $derived.by(() => {
		const read = new Map((desk.job?.sheet.readings ?? []).map((reading) => [reading.symbol, reading.cm]));
		const taken = [...read.keys()]
			.filter((key) => key.endsWith('.left'))
			.map((key) => key.slice(0, -'.left'.length))
			.filter((symbol) => read.has(`${symbol}.right`));
		return [...new Set([...taken, ...(desk.trial.recipe?.apart ?? [])])].map((symbol) => ({
			symbol,
			left: read.get(`${symbol}.left`),
			right: read.get(`${symbol}.right`),
		}));
	});

	async function toggle(symbol: string, box: HTMLInputElement): Promise<void> {
		const on = box.checked;
		const name = shelf.name(symbol).toLowerCase();
		await desk.deeds.keep(
			(recipe) => withApart(recipe, symbol, on),
			on ? `Left and right drafted apart by ${name}` : `Left and right drafted alike by ${name}`,
		);
		box.checked = desk.trial.recipe?.apart.includes(symbol) ?? false;
	}
</script>

{#if sides.length}
	<fieldset class="ticks">
		<legend>Left and right drafted apart</legend>
		{#each sides as { symbol, left, right } (symbol)}
			<label>
				<input
					type="checkbox"
					checked={desk.trial.recipe?.apart.includes(symbol)}
					disabled={desk.deeds.busy}
					onchange={(e) => toggle(symbol, e.currentTarget)}
				/>
				<span>
					{shelf.name(symbol)}
					{#if left !== undefined && right !== undefined}
						<em class="figures">{shown(left)} left, {shown(right)} right</em>
					{/if}
				</span>
			</label>
		{/each}
	</fieldset>
	<p class="soft">Unticked, both halves are drafted from the mean of the two.</p>
{/if}

<style>
	.soft {
		margin: 0.5rem 0.3rem;
	}
</style>
