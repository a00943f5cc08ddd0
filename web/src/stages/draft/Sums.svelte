<!-- The sums, line by line as one would write them on paper; pointing at a line lights the piece, and the reverse. -->
<script lang="ts">
	import { tick } from 'svelte';
	import type { Sum } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { reading, show } from '../../lib/units.svelte';

	let { pointed, ondraws }: { pointed: string | null; ondraws: (names: string[]) => void } = $props();

	const desk = getDesk();
	let list: HTMLElement | undefined = $state();

	const groups = $derived.by(() => {
		const found: { name: string; sums: Sum[] }[] = [];
		for (const sum of desk.preview?.sums ?? []) {
			let group = found.find((g) => g.name === sum.group);
			if (!group) found.push((group = { name: sum.group, sums: [] }));
			group.sums.push(sum);
		}
		return found;
	});

	$effect(() => {
		if (!pointed) return;
		void tick().then(() => list?.querySelector('.pointed')?.scrollIntoView({ block: 'nearest' }));
	});

	function label(sum: Sum): string {
		return sum.state === 'taken' ? shelf.name(sum.symbol) : sum.label;
	}

	/** How the value came about: the sum with its numbers, the condition that it was found to meet, or why it was chosen. */
	function working(sum: Sum): string {
		if (sum.worked) return sum.worked;
		if (sum.condition) return `so that ${sum.condition}; off by ${sum.residual.toFixed(3)}`;
		return sum.state === 'chosen' ? sum.reason : '';
	}

	function value(sum: Sum): string {
		if (sum.unit === 'cm') return `${show(sum.value, reading.unit)} ${reading.unit}`;
		return `${Math.round(sum.value * 10) / 10}${sum.unit}`;
	}

	const STATES: Record<string, string> = {
		taken: 'taken',
		estimated: 'estimated',
		found: 'found',
		chosen: 'chosen',
		overridden: 'set for this job',
	};
</script>

<div bind:this={list}>
	<p class="soft">
		The sums are worked in centimetres; results are shown in {reading.unit === 'cm'
			? 'centimetres'
			: 'inches'}.
	</p>
	{#each groups as group (group.name)}
		<h2>{group.name.replace(/^\d /, '')}</h2>
		<ul>
			{#each group.sums as sum (sum.symbol)}
				<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
				<li
					class={sum.state}
					class:pointed={pointed !== null && sum.draws.includes(pointed)}
					tabindex="0"
					title={[sum.reason, sum.source && `Source: ${sum.source}`].filter(Boolean).join(' ')}
					data-sum={sum.symbol}
					onpointerenter={() => ondraws(sum.draws)}
					onpointerleave={() => ondraws([])}
					onfocus={() => ondraws(sum.draws)}
					onblur={() => ondraws([])}
				>
					<span class="label">
						{label(sum)}
						{#if STATES[sum.state]}<span class="state"
								>{STATES[sum.state]}{sum.spread
									? ` ± ${show(sum.spread, reading.unit)} ${reading.unit}`
									: ''}</span
							>{/if}
					</span>
					<span class="value figures">{value(sum)}</span>
					{#if working(sum)}<span class="worked figures">{working(sum)}</span>{/if}
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
		color: var(--ink-soft);
		font-size: 0.92rem;
		margin: 0 0.3rem;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
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
	.overridden .state {
		color: var(--chalk);
		font-weight: 600;
	}
</style>
