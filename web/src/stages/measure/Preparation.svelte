<!-- Before the tape: what is worn and tied on, who measures, how much is taken, and the cautions. -->
<script lang="ts">
	import { searchParams } from 'sv-router';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import type { SheetTaking } from './sheet.svelte';

	let { sheet, onbegin, onleave }: { sheet: SheetTaking; onbegin: () => void; onleave: () => void } =
		$props();

	const whole = $derived(searchParams.get('all') === 'yes');

	function tickOff(item: string): void {
		sheet.prepared = sheet.prepared.includes(item)
			? sheet.prepared.filter((p) => p !== item)
			: [...sheet.prepared, item];
		sheet.changed();
	}
</script>

<h2>Before the tape</h2>
<ul class="prepare">
	{#each shelf.all?.preparation ?? [] as item, i (item.key)}
		<li>
			<label>
				<input
					type="checkbox"
					data-first={i === 0 ? '' : undefined}
					checked={sheet.prepared.includes(item.key)}
					onchange={() => tickOff(item.key)}
				/>
				<span><strong>{item.title}.</strong> {item.says}</span>
			</label>
		</li>
	{/each}
</ul>
<div class="who">
	<label for="guide-by">Measured by</label>
	<select id="guide-by" class="field" bind:value={sheet.takenBy} onchange={() => sheet.changed()}>
		<option value="helper">a helper</option>
		<option value="alone">the wearer, alone</option>
		{#if sheet.takenBy === 'scan'}<option value="scan">a scanner</option>{/if}
		{#if sheet.takenBy === 'chart'}<option value="chart">a size chart</option>{/if}
	</select>
	<label for="guide-worn">over</label>
	<input
		id="guide-worn"
		class="field"
		bind:value={sheet.worn}
		oninput={() => sheet.changed()}
		placeholder="which foundation garments"
	/>
	<label for="guide-set">taking</label>
	<select
		id="guide-set"
		class="field"
		value={whole ? 'yes' : 'no'}
		onchange={(e) => searchParams.set('all', e.currentTarget.value)}
	>
		<option value="no">what the block can use</option>
		<option value="yes">the whole sheet</option>
	</select>
</div>
{#each shelf.all?.cautions.measure ?? [] as caution (caution)}<p class="soft">{caution}</p>{/each}
<div class="deeds">
	<button class="button main" onclick={onbegin}>Begin</button>
	<button class="button" onclick={onleave}>Back to the sheet</button>
</div>

<style>
	.prepare {
		list-style: none;
		padding: 0;
		margin: 0 0 0.8rem;
		font-size: 1.05rem;
	}
	.prepare label {
		display: flex;
		gap: 0.7rem;
		padding: 0.22rem 0;
	}
	.prepare input {
		width: 1.2rem;
		height: 1.2rem;
		margin-top: 0.2rem;
		flex: none;
	}
	.who {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem 0.6rem;
		align-items: center;
		margin-bottom: 0.6rem;
		font-size: 1.02rem;
	}
	.who #guide-worn {
		width: 14rem;
	}
</style>
