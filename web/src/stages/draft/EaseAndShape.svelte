<!-- Ease: one control for the whole, each level under it, the shapes and other allowances below. -->
<script lang="ts">
	import { Slider } from '@skeletonlabs/skeleton-svelte';
	import type { Allowance, Ease } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { withValue } from '../../lib/desk/recipe';
	import { reading, show, shown, spoken } from '../../lib/units.svelte';
	import AllowanceField from './AllowanceField.svelte';
	import FitAndCloth from './FitAndCloth.svelte';
	import Notices from './Notices.svelte';
	import Steps from './Steps.svelte';

	let { pointed, ondraws }: { pointed: string | null; ondraws: (names: string[]) => void } = $props();

	const desk = getDesk();
	/** The girths of the trunk: what is spoken of in quarters, and slid. */
	const QUARTERED = ['bust', 'waist', 'hip'];
	/** What is a length, not a girth. */
	const NOT_AROUND = ['crotch_depth'];
	/** Of a quarter inch or half centimetre a slider's step is fine enough: finer is typed. */
	const STEP = { cm: 0.1, in: 0.15875 };

	const allowances = $derived(desk.trial.preview?.allowances ?? []);
	const eases = $derived(desk.trial.preview?.eases ?? []);
	const ofEase = $derived(new Map(allowances.map((a) => [a.symbol, a])));
	const levels = $derived(new Set(eases.map((e) => e.symbol)));
	const shaped = $derived(new Set((desk.trial.preview?.handles ?? []).map((h) => h.symbol)));
	const shapes = $derived(allowances.filter((a) => shaped.has(a.symbol)));
	const others = $derived(allowances.filter((a) => !levels.has(a.symbol) && !shaped.has(a.symbol)));
	const changed = $derived(others.filter((a) => a.state !== 'usual'));

	/** Where a slider is held while its value is on the way to the draft and back. */
	let held = $state<Record<string, number>>({});

	function slide(allowance: Allowance, value: number): void {
		held[allowance.symbol] = value;
		if (desk.trial.recipe)
			desk.trial.try(withValue(desk.trial.recipe, allowance.symbol, Math.round(value * 1000) / 1000));
	}

	/** A slider that has rested for this long (ms) is kept: keys in a row are one change, not ten. */
	const RESTED = 500;
	const resting: Record<string, ReturnType<typeof setTimeout>> = {};

	function settle(allowance: Allowance, value: number | undefined): void {
		if (value === undefined) return;
		clearTimeout(resting[allowance.symbol]);
		resting[allowance.symbol] = setTimeout(
			() => void set(allowance, Math.round(value * 1000) / 1000),
			RESTED,
		);
	}

	async function set(allowance: Allowance, value: number | null): Promise<void> {
		const words =
			value === null
				? `${allowance.label}: back to the usual`
				: `${allowance.label}: ${amount(allowance, value)}`;
		await desk.deeds.keep((recipe) => withValue(recipe, allowance.symbol, value), words);
		delete held[allowance.symbol];
	}

	function amount(allowance: Allowance, value: number): string {
		return allowance.unit === 'cm' ? shown(value) : `${Math.round(value * 1000) / 1000}${allowance.unit}`;
	}

	function told(ease: Ease): string {
		const around = NOT_AROUND.includes(ease.key) ? '' : ' around';
		const quarter = QUARTERED.includes(ease.key) ? `, ${shown(ease.total / 4)} a quarter` : '';
		if (ease.state === 'chosen') return `${shown(ease.total)}${around}${quarter}: ${spoken(ease.reason)}.`;
		const usual = ease.usual
			? `; usual ${show(ease.usual[0], reading.unit)} to ${shown(ease.usual[1])}`
			: '; a share of the girth, by the stretch';
		return `${shown(ease.total)}${around}${quarter}${usual}.`;
	}
</script>

{#snippet field(allowance: Allowance)}
	<!-- svelte-ignore a11y_no_static_element_interactions -->
	<div
		class="other"
		class:pointed={pointed !== null && allowance.draws.includes(pointed)}
		onpointerenter={() => ondraws(allowance.draws)}
		onpointerleave={() => ondraws([])}
		title={spoken(allowance.reason)}
	>
		<AllowanceField {allowance} onset={(value) => set(allowance, value)} />
	</div>
{/snippet}

<FitAndCloth />
{#if desk.trial.preview}
	<Notices />
	{#each eases as ease (ease.key)}
		{@const allowance = ofEase.get(ease.symbol)}
		<!-- svelte-ignore a11y_no_static_element_interactions -->
		<div
			class="ease"
			title={spoken(ease.reason)}
			onpointerenter={() => ondraws(allowance?.draws ?? [])}
			onpointerleave={() => ondraws([])}
		>
			<div class="top">
				<strong>{allowance?.label ?? ease.label}</strong>
				{#if allowance}
					<AllowanceField {allowance} onset={(value) => set(allowance, value)} hideLabel />
				{:else}
					<span class="figures">{shown(ease.total)}</span>
				{/if}
			</div>
			{#if allowance && QUARTERED.includes(ease.key)}
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
			{/if}
			<p class="soft figures">{told(ease)}</p>
		</div>
	{/each}
	<Steps />
	{#if shapes.length}
		<details open>
			<summary>Shapes, also pulled on the table</summary>
			{#each shapes as allowance (allowance.symbol)}{@render field(allowance)}{/each}
		</details>
	{/if}
	<details open={changed.length > 0}>
		<summary>Other allowances{changed.length ? ` (${changed.length} changed)` : ''}</summary>
		{#each others as allowance (allowance.symbol)}{@render field(allowance)}{/each}
	</details>
{:else if desk.trial.problem}
	<p class="soft">
		There is no draft yet. An easier fit gives more room; another block may suit the shape; a measure taken
		again may settle it.
	</p>
{:else}
	<p class="soft" role="status">Working the draft out…</p>
{/if}

<style>
	.ease {
		padding: 0.4rem 0.3rem;
		border-bottom: 1px solid var(--rule);
	}
	.top {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin-bottom: 0.4rem;
	}
	.soft {
		margin: 0.35rem 0 0;
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
