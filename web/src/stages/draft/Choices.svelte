<!-- Ease and choices: bust and waist ease live, the school, what the draft has to say, all allowances below. -->
<script lang="ts">
	import { SegmentedControl, Slider } from '@skeletonlabs/skeleton-svelte';
	import type { Allowance, Recipe } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { reading, shown, spoken } from '../../lib/units.svelte';
	import AllowanceField from './AllowanceField.svelte';
	import Steps from './Steps.svelte';

	let { pointed, ondraws }: { pointed: string | null; ondraws: (names: string[]) => void } = $props();

	const desk = getDesk();
	const MAIN = ['bust_ease', 'waist_ease'];
	/** Of a quarter inch or half centimetre a slider's step is fine enough: finer is typed. */
	const STEP = { cm: 0.1, in: 0.15875 };

	const allowances = $derived(desk.preview?.allowances ?? []);
	const main = $derived(allowances.filter((a) => MAIN.includes(a.symbol)));
	const others = $derived(allowances.filter((a) => !MAIN.includes(a.symbol)));
	const changed = $derived(others.filter((a) => a.state !== 'usual'));
	const school = $derived(desk.recipe?.school ?? 'direct');

	function withOverride(recipe: Recipe, symbol: string, value: number | null): Recipe {
		const overrides = { ...recipe.overrides };
		if (value === null) delete overrides[symbol];
		else overrides[symbol] = value;
		return { ...recipe, overrides };
	}

	/** Where a slider is held while its value is on the way to the draft and back. */
	let held = $state<Record<string, number>>({});

	function slide(allowance: Allowance, value: number): void {
		held[allowance.symbol] = value;
		if (desk.recipe) desk.try(withOverride(desk.recipe, allowance.symbol, Math.round(value * 1000) / 1000));
	}

	/** A slider that has rested for this long (ms) is kept: keys in a row are one change, not ten. */
	const RESTED = 500;
	let resting: ReturnType<typeof setTimeout> | undefined;

	function settle(allowance: Allowance, value: number | undefined): void {
		if (value === undefined) return;
		clearTimeout(resting);
		resting = setTimeout(() => void set(allowance, Math.round(value * 1000) / 1000), RESTED);
	}

	function useSchool(school: string): void {
		void desk.keep((recipe) => ({ ...recipe, school }), `${school} school`);
	}

	async function set(allowance: Allowance, value: number | null): Promise<void> {
		const words =
			value === null
				? `${allowance.label}: back to the usual`
				: `${allowance.label}: ${amount(allowance, value)}`;
		await desk.keep((recipe) => withOverride(recipe, allowance.symbol, value), words);
		delete held[allowance.symbol];
	}

	function amount(allowance: Allowance, value: number): string {
		return allowance.unit === 'cm' ? shown(value) : `${Math.round(value * 1000) / 1000}${allowance.unit}`;
	}
</script>

{#if desk.preview}
	<div class="main">
		{#each main as allowance (allowance.symbol)}
			<!-- svelte-ignore a11y_no_static_element_interactions -->
			<div class="ease" onpointerenter={() => ondraws(allowance.draws)} onpointerleave={() => ondraws([])}>
				<div class="top">
					<strong>{allowance.label}</strong>
					<AllowanceField {allowance} onset={(value) => set(allowance, value)} hideLabel />
				</div>
				<Slider
					aria-label={[allowance.label]}
					min={allowance.low}
					max={allowance.high}
					step={STEP[reading.unit]}
					value={[held[allowance.symbol] ?? allowance.value]}
					onValueChange={(e) => e.value[0] !== undefined && slide(allowance, e.value[0])}
					onValueChangeEnd={(e) => settle(allowance, held[allowance.symbol] ?? e.value[0])}
				>
					<Slider.Control>
						<Slider.Track><Slider.Range /></Slider.Track>
						<Slider.Thumb index={0}><Slider.HiddenInput /></Slider.Thumb>
					</Slider.Control>
				</Slider>
				<p class="soft figures">
					{shown(allowance.value)} around, {shown(allowance.value / 4)} a quarter. {allowance.reason}
				</p>
			</div>
		{/each}
	</div>
	<div class="school">
		<SegmentedControl value={school} onValueChange={(e) => e.value && useSchool(e.value)}>
			<SegmentedControl.Label>Drafted from</SegmentedControl.Label>
			<SegmentedControl.Control>
				<SegmentedControl.Indicator />
				<SegmentedControl.Item value="direct">
					<SegmentedControl.ItemText>all that was taken</SegmentedControl.ItemText>
					<SegmentedControl.ItemHiddenInput />
				</SegmentedControl.Item>
				<SegmentedControl.Item value="proportional">
					<SegmentedControl.ItemText>girths and height</SegmentedControl.ItemText>
					<SegmentedControl.ItemHiddenInput />
				</SegmentedControl.Item>
			</SegmentedControl.Control>
		</SegmentedControl>
	</div>
	{#each desk.preview.notices as notice (notice.code + notice.message)}
		<p class="note">{spoken(notice.message)}</p>
	{/each}
	<Steps />
	<details open={changed.length > 0}>
		<summary>Other allowances{changed.length ? ` (${changed.length} changed)` : ''}</summary>
		{#each others as allowance (allowance.symbol)}
			<!-- svelte-ignore a11y_no_static_element_interactions -->
			<div
				class="other"
				class:pointed={pointed !== null && allowance.draws.includes(pointed)}
				onpointerenter={() => ondraws(allowance.draws)}
				onpointerleave={() => ondraws([])}
				title={allowance.reason}
			>
				<AllowanceField {allowance} onset={(value) => set(allowance, value)} />
			</div>
		{/each}
	</details>
{:else}
	<p class="soft" role="status">Working the draft out…</p>
{/if}

<style>
	.ease {
		padding: 0.5rem 0.3rem;
		border-bottom: 1px solid var(--rule);
	}
	.top {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin-bottom: 0.4rem;
	}
	.soft {
		color: var(--ink-soft);
		font-size: 0.92rem;
		margin: 0.4rem 0 0;
	}
	.school {
		padding: 0.7rem 0.3rem;
	}
	.note {
		margin: 0.4rem 0;
	}
	summary {
		padding: 0.5rem 0.3rem;
		cursor: pointer;
		font-weight: 600;
	}
	.other {
		padding: 0.15rem 0.3rem;
		border-bottom: 1px solid var(--rule);
	}
	.pointed {
		background: var(--chalk-soft);
	}
</style>
