<!-- The sums, line by line as one would write them on paper; pointing at a line lights the piece, and the reverse. -->
<script lang="ts">
	import { Pencil } from '@lucide/svelte';
	import { tick } from 'svelte';
	import { api, type Sum } from '../../lib/api/client';
	import { Loaded } from '../../lib/api/loaded.svelte';
	import { getDesk } from '../../lib/desk/context';
	import { asUsual } from '../../lib/desk/recipe';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { reading, show, spoken } from '../../lib/units.svelte';

	import HouseRules from './HouseRules.svelte';
	import SumEditor from './SumEditor.svelte';

	let { pointed, ondraws }: { pointed: string | null; ondraws: (names: string[]) => void } = $props();

	const desk = getDesk();
	/** The sum that is being changed, and how often a house rule was set. */
	let changing = $state<string | null>(null);
	let news = $state(0);
	const ownValues = $derived(
		new Set([
			...Object.keys(desk.trial.recipe?.overrides ?? {}),
			...Object.keys(desk.trial.recipe?.house ?? {}),
		]).size,
	);
	let list: HTMLElement | undefined = $state();

	const groups = $derived.by(() => {
		const found: { name: string; sums: Sum[] }[] = [];
		for (const sum of desk.trial.preview?.sums ?? []) {
			let group = found.find((g) => g.name === sum.group);
			if (!group) found.push((group = { name: sum.group, sums: [] }));
			group.sums.push(sum);
		}
		return found;
	});

	/** What moves with the measure that is pointed at, found by trying: the server remembers what it tried. */
	const moved = new Loaded<{ lines: string[] }>();

	/** Light what a sum draws; for a measure, exactly the lines that move with it on this body. */
	async function light(sum: Sum): Promise<void> {
		moved.clear();
		if (sum.group !== 'Measures' || !desk.job || !desk.trial.recipe) return ondraws(sum.draws);
		const body = { sheet: desk.job.sheet.id, recipe: desk.trial.recipe, symbol: sum.symbol };
		const found = await moved.load(api.POST('/api/moved-by', { body }));
		if (found) ondraws(found.lines);
		else if (moved.problem) ondraws(sum.draws);
	}

	function dark(): void {
		moved.clear();
		ondraws([]);
	}

	$effect(() => {
		if (!pointed) return;
		void tick().then(() => list?.querySelector('.pointed')?.scrollIntoView({ block: 'nearest' }));
	});

	function label(sum: Sum): string {
		return sum.state === 'taken' ? shelf.name(sum.symbol) : sum.label;
	}

	/** How the value came about: the sum with its numbers, the condition that it was found to meet, or why it was chosen. */
	function working(sum: Sum): string {
		if (sum.worked) return spoken(sum.worked);
		if (sum.state === 'overridden' || sum.state === 'house')
			return sum.written ? `in place of ${spoken(sum.written)}. ${sum.reason}` : sum.reason;
		if (sum.condition) return `so that ${sum.condition}; off by ${Math.abs(sum.residual).toFixed(3)}`;
		return sum.state === 'chosen' ? sum.reason : '';
	}

	function value(sum: Sum): string {
		if (sum.unit === 'cm') return `${show(sum.value, reading.unit)} ${reading.unit}`;
		return `${Math.round(sum.value * 10) / 10}${sum.unit}`;
	}

	function print(paper: string): string {
		return `/api/jobs/${desk.job?.id}/worksheet/print?paper=${paper}&unit=${reading.unit}`;
	}

	const STATES: Record<string, string> = {
		taken: 'taken',
		estimated: 'estimated',
		found: 'found',
		chosen: 'chosen',
		overridden: 'set for this job',
		house: 'house rule',
	};
</script>

<div bind:this={list}>
	<p class="soft">
		The sums are worked in centimetres; results are shown in {reading.unit === 'cm'
			? 'centimetres'
			: 'inches'}. Point at a measure to see exactly what moves with it.
	</p>
	<p class="soft">
		On paper: <a href={print('a4')} download>A4</a> · <a href={print('letter')} download>Letter</a>
	</p>
	<HouseRules {news} />
	{#if ownValues}
		<p class="own">
			{ownValues}
			{ownValues === 1 ? 'value is' : 'values are'} set by you.
			<button
				class="button small"
				disabled={desk.deeds.busy}
				onclick={() => desk.deeds.keep(asUsual, 'every sum and allowance back to the usual')}
				>Put all back</button
			>
		</p>
	{/if}
	{#each groups as group (group.name)}
		<h2>{group.name.replace(/^\d /, '')}</h2>
		<ul>
			{#each group.sums as sum (sum.symbol)}
				<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
				<li
					class={sum.state}
					class:pointed={pointed !== null && sum.draws.includes(pointed)}
					tabindex="0"
					title={[spoken(sum.reason), sum.source && `Source: ${sum.source}`].filter(Boolean).join(' ')}
					data-sum={sum.symbol}
					onpointerenter={() => light(sum)}
					onpointerleave={dark}
					onfocus={() => light(sum)}
					onblur={dark}
				>
					<span class="label">
						{label(sum)}
						{#if STATES[sum.state]}<span class="state"
								>{STATES[sum.state]}{sum.spread
									? ` ± ${show(sum.spread, reading.unit)} ${reading.unit}`
									: ''}</span
							>{/if}
					</span>
					<span class="value figures">
						{value(sum)}
						{#if sum.state !== 'taken'}
							<button
								class="change"
								aria-label={`Change: ${label(sum)}`}
								title="Set it for this job, or as a house rule"
								onclick={() => (changing = changing === sum.symbol ? null : sum.symbol)}
								><Pencil size={14} /></button
							>
						{/if}
					</span>
					{#if working(sum)}<span class="worked figures">{working(sum)}</span>{/if}
					{#if changing === sum.symbol}
						<SumEditor {sum} onhouse={() => (news += 1)} onclose={() => (changing = null)} />
					{/if}
				</li>
			{/each}
		</ul>
	{/each}
</div>

<style>
	h2 {
		font-size: 1.05rem;
		margin: 0.8rem 0.3rem 0.1rem;
	}
	.soft {
		margin: 0 0.3rem;
	}
	.own {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin: 0.4rem 0.3rem;
	}
	li {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 0 0.8rem;
		padding: 0.28rem 0.4rem;
		border-bottom: 1px solid var(--rule);
		border-left: 3px solid transparent;
	}
	li:hover,
	.pointed {
		background: var(--chalk-soft);
	}
	.value {
		font-weight: 600;
		text-align: right;
	}
	.worked {
		grid-column: 1 / -1;
		color: var(--ink-soft);
		font-size: 0.88rem;
	}
	.state {
		font-size: 0.85rem;
		margin-left: 0.4rem;
		color: var(--ink-soft);
	}
	.estimated {
		border-left-style: dotted;
		border-left-color: var(--amber);
	}
	.estimated .value::before {
		content: '≈ ';
	}
	.estimated .state {
		color: var(--amber);
	}
	.taken {
		border-left-color: var(--moss);
	}
	.overridden,
	.chosen {
		border-left-color: var(--chalk);
	}
	.house {
		border-left: 3px double var(--chalk);
	}
	.change {
		padding: 0.2rem;
		color: var(--ink-soft);
		cursor: pointer;
		opacity: 0.55;
	}
	li:hover .change,
	.change:focus-visible {
		opacity: 1;
		color: var(--chalk);
	}
	.house .state,
	.overridden .state {
		color: var(--chalk);
		font-weight: 600;
	}
</style>
