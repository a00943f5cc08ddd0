<!-- The remedies of a finding, each with its arithmetic and what came of it when it was tried on the garment. -->
<script lang="ts">
	import type { Worked } from '../../lib/api/client';
	import { shown, spoken } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';

	interface Props {
		/** The finding's key, by which a sum is found on the page. */
		kind: string;
		ways: Worked[];
		chosen: Worked | null;
		/** The pencil of a remedy where all of them are laid over each other. */
		pencilOf: ((way: Worked) => string) | null;
		onpick: (key: string) => void;
	}
	let { kind, ways, chosen, pencilOf, onpick }: Props = $props();

	/** cm. What a remedy came to is told apart from what was asked where they differ by more. */
	const OFF = 0.1;
	/** Sums whose result is no length: a share, or how many times as full. */
	const isPlain = (way: Worked) => way.sum_label.startsWith('of ') || way.sum_label.startsWith('times ');

	/** The remedy's sum as one would write it: what was pinned, over how many edges, what each gets. */
	function arithmetic(way: Worked): string {
		if (!way.sum_label) return '';
		if (isPlain(way)) return `${way.sum_value.toFixed(2)} ${way.sum_label}`;
		const result = `${shown(way.sum_value)} ${way.sum_label}`;
		const worked = way.sum_text.includes('÷') ? `${spoken(way.sum_text)} = ${result}` : result;
		return way.edges > 1 ? `${worked} (${way.edges} edges cut)` : worked;
	}

	/** How what was measured was turned into whole cloth, openly. */
	function turned(way: Worked): string[] {
		return way.turned
			.filter((one) => one.ways.length && one.given)
			.map((one) => {
				const factors = one.ways.map(({ by }) => ` × ${by}`).join('');
				const words = one.ways.map((factor) => factor.words).join('; ');
				return `${one.label}: ${shown(one.given)}${factors} = ${shown(one.whole)} (${words}).`;
			});
	}

	function came(way: Worked): string[] {
		const found = way.read
			.filter((one) => Math.abs(one.asked) > OFF || Math.abs(one.came) > OFF)
			.map((one) => {
				const by = one.came > 0 ? `+${shown(one.came)}` : shown(one.came);
				const asked = Math.abs(one.came - one.asked) > OFF ? `, asked ${shown(one.asked)}` : '';
				const worn =
					way.under && Math.abs(one.came - one.worn) > OFF
						? `; on the finished garment ${shown(one.worn)}`
						: '';
				return `${one.what} ${by}${asked}${worn}`;
			});
		return found.length ? [`Comes to: ${found.join(', ')}.`] : [];
	}

	/** How far the farthest line moves, and what would no longer agree. */
	function agrees(way: Worked): string {
		if (!way.touched.length) return '';
		const moved = way.farthest
			? `Moves the ${lineName(way.farthest)} most, by ${shown(way.farthest_by)}.`
			: 'No line moves.';
		if (!way.odd.length) return `${moved} Nothing disagrees that agreed.`;
		return `${moved} No longer agrees: ${way.odd.map((words) => spoken(words)).join('. ')}.`;
	}
</script>

{#each ways as way (way.key)}
	{#if way.refused}
		<div class="remedy refused">
			<span>
				<strong>{way.title}</strong>
				<span class="soft">Not here: {spoken(way.refused)} {spoken(way.fix)}</span>
			</span>
		</div>
	{:else}
		<label class="remedy" class:chosen={way.key === chosen?.key}>
			<input type="radio" name="remedy" checked={way.key === chosen?.key} onchange={() => onpick(way.key)} />
			<span>
				<strong>
					{#if pencilOf && way.key !== chosen?.key}
						<i class="pencil" style:background={pencilOf(way)} title="drawn dashed in this pencil"></i>
					{/if}
					{way.title}
				</strong>
				{#if arithmetic(way)}
					<span class="sum figures" data-sum="{kind}.{way.key}">{arithmetic(way)}</span>
				{/if}
				{#each turned(way) as line (line)}<span class="soft figures">{line}</span>{/each}
				<span class="soft">{way.reason}</span>
				{#if agrees(way)}<span class="came-to">{agrees(way)}</span>{/if}
				{#if way.was_tried}<span class="came-to">It was made before, and did not solve it.</span>{/if}
				{#if way.key === chosen?.key}
					{#each way.amends as one (one.step.uid)}
						<span class="came-to">In the style: {spoken(one.words[0]!)} → {spoken(one.words[1]!)}</span>
					{/each}
					{#if way.under}<span class="soft">Under the style: the style is worked again on top.</span>{/if}
					{#each came(way) as line (line)}<span class="came-to figures">{line}</span>{/each}
					{#if way.touched.length}
						<span class="soft">Touches {way.touched.map((t) => t.toLowerCase()).join(', ')}.</span>
					{/if}
					{#each way.follows as words (words)}<span class="soft">Follows: {spoken(words)}.</span>{/each}
					{#if way.beyond}<span class="came-to">{spoken(way.beyond)}</span>{/if}
				{/if}
			</span>
		</label>
	{/if}
{/each}

<style>
	.remedy {
		display: flex;
		gap: 0.6rem;
		padding: 0.45rem;
		border: 1px solid var(--rule);
		border-radius: var(--radius-base);
		margin-bottom: 0.35rem;
		align-items: flex-start;
		cursor: pointer;
	}
	.remedy input {
		margin-top: 0.35rem;
	}
	.remedy.refused {
		cursor: default;
		border-style: dashed;
	}
	.remedy.refused strong {
		font-weight: 500;
		color: var(--ink-soft);
	}
	.remedy.chosen {
		border-color: var(--chalk);
		background: var(--chalk-soft);
	}
	.remedy span span {
		display: block;
	}
	.came-to {
		font-size: 0.92rem;
	}
	.pencil {
		display: inline-block;
		width: 0.7rem;
		height: 0.7rem;
		border-radius: 50%;
	}
</style>
