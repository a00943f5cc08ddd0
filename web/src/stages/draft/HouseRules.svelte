<!-- The house rules: what the maker set for all new jobs; dropped here, set at a sum. -->
<script lang="ts">
	import { api, type HouseRule, type Lesson } from '../../lib/api/client';
	import { Loaded } from '../../lib/api/loaded.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { shown } from '../../lib/units.svelte';

	/** Counts up when a rule was set elsewhere. */
	let { news }: { news: number } = $props();

	/** What fittings of several wearers keep changing the same way. */
	const taught = new Loaded<Lesson[]>();
	const kept = new Loaded<HouseRule[]>();
	const dropped = new Loaded<unknown>();
	const rules = $derived(kept.value ?? []);
	const problem = $derived(dropped.problem ?? kept.problem ?? taught.problem);

	const load = (): Promise<unknown> => kept.load(api.GET('/api/house-rules'));
	$effect(() => {
		void news;
		void load();
	});

	const lessons = $derived(taught.value ?? []);
	$effect(() => void taught.load(api.GET('/api/lessons')));

	async function learn(lesson: Lesson): Promise<void> {
		const { symbol, value, words: reason } = lesson;
		const set = api.PUT('/api/house-rules/{symbol}', {
			params: { path: { symbol } },
			body: { value, reason },
		});
		await dropped.load(set);
		await Promise.all([load(), taught.load(api.GET('/api/lessons'))]);
	}

	/** How much more or less a lesson asks for. */
	function more(lesson: Lesson): string {
		const by = lesson.unit === 'cm' ? shown(Math.abs(lesson.by)) : `${Math.abs(lesson.by)}${lesson.unit}`;
		return `${lesson.by > 0 ? '+' : '−'} ${by} in ${lesson.garments} of ${lesson.of} fitted garments`;
	}

	async function drop({ symbol }: HouseRule): Promise<void> {
		await dropped.load(api.DELETE('/api/house-rules/{symbol}', { params: { path: { symbol } } }));
		await load();
	}

	function amount(rule: HouseRule): string {
		return rule.unit === 'cm' ? shown(rule.value) : `${rule.value}${rule.unit}`;
	}
</script>

{#if problem}<ProblemNote {problem} />{/if}
{#if rules.length}
	<details>
		<summary>House rules ({rules.length}), for all new jobs</summary>
		<ul>
			{#each rules as rule (rule.symbol)}
				<li>
					<span
						><strong>{rule.label}</strong> <span class="figures">{amount(rule)}</span>
						<em>in place of {rule.usual}; {rule.reason}</em></span
					>
					<button
						class="button small"
						onclick={() => drop(rule)}
						aria-label={`Drop the house rule: ${rule.label}`}>Drop</button
					>
				</li>
			{/each}
		</ul>
	</details>
{/if}
{#if lessons.length}
	<details open>
		<summary>What the fittings teach</summary>
		<ul>
			{#each lessons as lesson (lesson.symbol)}
				<li>
					<span
						><strong>{lesson.label}</strong> <span class="figures">{more(lesson)}</span>
						<em>{lesson.words} Usual: {lesson.unit === 'cm' ? shown(lesson.usual) : lesson.usual}.</em></span
					>
					<button class="button small" onclick={() => learn(lesson)}
						>Set {lesson.unit === 'cm' ? shown(lesson.value) : lesson.value} for new jobs</button
					>
				</li>
			{/each}
		</ul>
	</details>
{/if}

<style>
	summary {
		padding: 0.4rem 0.3rem;
		cursor: pointer;
		font-weight: 600;
	}
	li {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 0.6rem;
		padding: 0.3rem;
		border-bottom: 1px solid var(--rule);
	}
	em {
		display: block;
		font-style: normal;
		font-size: 0.92rem;
		color: var(--ink-soft);
	}
</style>
