<!-- The Measure stage: the sheet, taking it guided, sheets over time, files in and out; each at an address of its own. -->
<script lang="ts">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
	import { onDestroy } from 'svelte';
	import { searchParams } from 'sv-router';
	import type { Sheet, UnderWay } from '../../lib/api/client';
	import Guide from './Guide.svelte';
	import InAndOut from './InAndOut.svelte';
	import { SheetTaking } from './sheet.svelte';
	import SheetForm from './SheetForm.svelte';
	import Sheets from './Sheets.svelte';

	interface Props {
		wearer: string;
		wearerName: string;
		/** The sheet to start from, and the one that was under way. */
		from: Sheet | null;
		underWay: UnderWay | null;
		/** The job on the desk, and the sheet that it is drafted from. */
		job: string | null;
		current: Sheet | null;
		/** The blocks that are to be drafted. */
		blocks: readonly string[];
		keepWords: string;
		/** Allowances that make up for how the measures were taken, by symbol in cm. */
		chosen: Record<string, number>;
		onallow: (allowance: string, cm: number | null) => void;
		/** Told of a kept sheet, or of an earlier one that is chosen. */
		onkept: (sheet: Sheet) => Promise<void> | void;
	}
	let {
		wearer,
		wearerName,
		from,
		underWay,
		job,
		current,
		blocks,
		keepWords,
		chosen,
		onallow,
		onkept,
	}: Props = $props();

	// svelte-ignore state_referenced_locally
	const sheet = new SheetTaking(wearer, from, job, underWay, blocks);

	onDestroy(() => sheet.leave());

	const VIEWS = [
		{ value: 'sheet', label: 'Sheet' },
		{ value: 'take', label: 'Guided' },
		{ value: 'time', label: 'Earlier sheets' },
		{ value: 'files', label: 'In and out' },
	];
	const view = $derived(String(searchParams.get('view') ?? 'sheet'));

	function show(value: string): void {
		searchParams.set('view', value);
	}

	async function keep(): Promise<void> {
		const kept = await sheet.keep();
		if (kept) await onkept(kept);
	}
</script>

<div class="stage">
	<div class="bar">
		<SegmentedControl value={view} onValueChange={(e) => show(e.value ?? 'sheet')}>
			<SegmentedControl.Label class="sr-only">Show</SegmentedControl.Label>
			<SegmentedControl.Control>
				{#each VIEWS as { value, label } (value)}
					<SegmentedControl.Item {value}>
						<SegmentedControl.ItemText>{label}</SegmentedControl.ItemText>
						<SegmentedControl.ItemHiddenInput />
					</SegmentedControl.Item>
				{/each}
			</SegmentedControl.Control>
		</SegmentedControl>
		{#if current}<span class="soft">this job is drafted from sheet {current.number}</span>{/if}
	</div>
	<div class="view">
		{#if view === 'take'}
			<Guide {sheet} {keepWords} onkeep={keep} onleave={() => show('sheet')} />
		{:else if view === 'time'}
			<Sheets
				{wearer}
				current={current?.number ?? null}
				{job}
				onchoose={(chosenSheet) => void onkept(chosenSheet)}
			/>
		{:else if view === 'files'}
			<InAndOut {sheet} kept={current ?? from} onbrought={() => show('sheet')} />
		{:else}
			<SheetForm {sheet} {wearer} {wearerName} {keepWords} {chosen} {onallow} onkeep={keep} />
		{/if}
	</div>
</div>

<style>
	.stage {
		display: flex;
		flex-direction: column;
		height: 100%;
		min-height: 0;
	}
	.bar {
		display: flex;
		gap: 1rem;
		align-items: center;
		padding: 0.35rem 1.1rem;
		border-bottom: 1px solid var(--rule);
	}
	.soft {
		margin-left: auto;
	}
	.view {
		flex: 1;
		min-height: 0;
	}
</style>
