<!-- The sheet itself: all measures by station, typed in either unit, looked at while they are typed. -->
<script lang="ts">
	import { tick } from 'svelte';
	import { searchParams } from 'sv-router';
	import type { Measure } from '../../lib/api/client';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { moment } from '../../lib/words';
	import { reading, type Unit } from '../../lib/units.svelte';
	import DeleteWearer from './DeleteWearer.svelte';
	import Doubts from './Doubts.svelte';
	import FigureViews from './FigureViews.svelte';
	import MeasureRow from './MeasureRow.svelte';
	import NextMeasures from './NextMeasures.svelte';
	import OneMeasure from './OneMeasure.svelte';
	import type { SheetTaking } from './sheet.svelte';

	interface Props {
		sheet: SheetTaking;
		wearer: string;
		wearerName: string;
		keepWords: string;
		chosen: Record<string, number>;
		onallow: (allowance: string, cm: number | null) => void;
		onkeep: () => void;
	}
	let { sheet, wearer, wearerName, keepWords, chosen, onallow, onkeep }: Props = $props();

	const all = $derived(searchParams.get('all') === 'yes');
	const { used, required } = $derived(shelf.measuresOf(sheet.blocks));
	const listed = $derived(
		(shelf.all?.measures ?? []).filter((m) => all || used.has(m.symbol) || sheet.isTaken(m.symbol)),
	);
	const groups = $derived([
		{ title: 'To begin with', stand: '', of: listed.filter((m) => required.has(m.symbol)) },
		...(shelf.all?.stations ?? []).map((station) => ({
			title: station.title,
			stand: station.stand,
			of: listed.filter((m) => m.station === station.key && !required.has(m.symbol)),
		})),
	]);
	const tapes = $derived(listed.map((m) => m.symbol));
	const review = $derived(sheet.review);
	const taken = $derived(review?.readings.filter((r) => !r.error).length ?? 0);
	const unread = $derived(review?.readings.filter((r) => r.error) ?? []);
	const pointed = $derived<Measure | undefined>(shelf.measure(sheet.pointed ?? ''));

	function unitOf(symbol: string): Unit {
		return (sheet.readings[symbol]?.unit as Unit | undefined) ?? reading.unit;
	}

	function next(event: KeyboardEvent): void {
		const step = event.key === 'Enter' || event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
		if (!step) return;
		event.preventDefault();
		const fields = [...document.querySelectorAll<HTMLInputElement>('[data-measure]')];
		const at = fields.indexOf(event.target as HTMLInputElement);
		if (fields[at + step]) fields[at + step]?.focus();
		else if (step > 0) void toKeep(event.target as HTMLInputElement);
	}

	/** After the last field: to what keeps the sheet, which waits for what the core thinks of the last reading. */
	async function toKeep(from: HTMLInputElement): Promise<void> {
		await sheet.judged();
		await tick();
		if (document.activeElement === from) document.querySelector<HTMLElement>('#keep')?.focus();
	}

	function go(symbol: string): void {
		sheet.pointed = symbol;
		if (!listed.some((m) => m.symbol === symbol)) searchParams.set('all', 'yes');
		requestAnimationFrame(() =>
			document
				.querySelector<HTMLInputElement>(`[data-measure="${symbol}"], [data-measure="${symbol}.left"]`)
				?.focus(),
		);
	}
</script>

<div class="measuring">
	<section class="form" aria-label="Measures">
		{#if sheet.resumed}
			<p class="note resumed">
				What you had typed for {wearerName} and not kept is here again.
				<button class="button small" onclick={() => sheet.startAfresh()}>Start from the last sheet</button>
			</p>
		{/if}
		{#each groups as group (group.title)}
			{#if group.of.length}
				<h2>{group.title} <span>{group.stand}</span></h2>
				<div class="rows">
					{#each group.of as measure (measure.symbol)}
						<MeasureRow
							{measure}
							{sheet}
							unit={unitOf(measure.symbol)}
							needed={review?.missing.some((g) => g.includes(measure.symbol)) ?? false}
							onkeydown={next}
						/>
					{/each}
				</div>
			{/if}
		{/each}
		<p class="more">
			{#if all}
				<button class="button small" onclick={() => searchParams.set('all', 'no')}
					>Only what the block can use</button
				>
			{:else}
				<button class="button small" onclick={() => searchParams.set('all', 'yes')}
					>All {shelf.all?.measures.length ?? ''} measures</button
				>
			{/if}
		</p>
	</section>
	<aside>
		<div class="figure"><FigureViews {sheet} {tapes} onchoose={go} /></div>
		<div class="beside">
			{#if sheet.problem}
				<ProblemNote problem={sheet.problem}>
					{#if sheet.problem.passing}<button class="button small main" onclick={onkeep}>Try again</button
						>{/if}
				</ProblemNote>
			{/if}
			{#if sheet.lost}<p class="note" role="status">{sheet.lost}</p>{/if}
			{#if sheet.elsewhere}
				<div class="note wrong" role="alert">
					<p>
						<strong>This sheet was gone on with elsewhere, {moment(sheet.elsewhere.saved)}.</strong> What is typed
						here is kept in this browser; nothing of either is lost.
					</p>
					<button class="button small main" onclick={() => sheet.takeOver()}>Show what stands there</button>
					<button class="button small" onclick={() => sheet.goOnHere()}>Go on with what is here</button>
				</div>
			{/if}
			<Doubts {sheet} ongo={go} />
			{#if pointed}<div class="sheet part"><OneMeasure measure={pointed} {sheet} /></div>{/if}
			<section class="sheet part">
				{#if review?.can_draft}<p>What is not taken is estimated, and marked so.</p>{/if}
				{#if unread.length}
					<p class="missing">
						Not read yet: {unread.map((r) => shelf.name(r.symbol).toLowerCase()).join(', ')}.
					</p>
				{/if}
				{#if review && review.missing.length}
					<p class="missing">
						Still needed: {review.missing
							.map((group) => group.map((s) => shelf.name(s).toLowerCase()).join(' or '))
							.join('; ')}.
					</p>
				{/if}
				<div class="meta">
					<label for="on">Taken on</label>
					<input
						id="on"
						class="field"
						type="date"
						bind:value={sheet.takenOn}
						onchange={() => sheet.changed()}
					/>
					<label for="by">By</label>
					<select id="by" class="field" bind:value={sheet.takenBy} onchange={() => sheet.changed()}>
						<option value="helper">a helper</option>
						<option value="alone">the wearer, alone</option>
						{#if sheet.takenBy === 'scan'}<option value="scan">a scanner</option>{/if}
						{#if sheet.takenBy === 'chart'}<option value="chart">a size chart</option>{/if}
					</select>
					<label for="worn">Over</label>
					<input
						id="worn"
						class="field"
						bind:value={sheet.worn}
						oninput={() => sheet.changed()}
						placeholder="which foundation garments"
					/>
				</div>
			</section>
			<NextMeasures {sheet} {used} {chosen} {onallow} ongo={go} />
			{#each shelf.all?.cautions.measure ?? [] as caution (caution)}
				<p class="soft">{caution}</p>
			{/each}
			<DeleteWearer {wearer} name={wearerName} onremove={() => sheet.rest()} />
		</div>
		<!-- At the foot, where nothing that is told meanwhile can move it from under the pointer. -->
		<div class="foot">
			<span><strong class="figures">{taken}</strong> taken</span>
			<button id="keep" class="button main" disabled={sheet.busy || !review?.can_draft} onclick={onkeep}
				>{keepWords}</button
			>
		</div>
	</aside>
</div>

<style>
	.measuring {
		display: grid;
		grid-template-columns: 1fr 27rem;
		height: 100%;
		min-height: 0;
	}
	.form {
		overflow: auto;
		padding: 0.4rem 1.1rem 2rem;
	}
	.form h2 {
		font-size: 1.1rem;
		margin: 0.8rem 0 0.2rem;
	}
	.form h2 span {
		font-family: 'Commissioner Variable', sans-serif;
		font-size: 0.9rem;
		color: var(--ink-soft);
		margin-left: 0.5rem;
	}
	.rows {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(23rem, 1fr));
		gap: 0 1.2rem;
	}
	aside {
		display: flex;
		flex-direction: column;
		min-height: 0;
		border-left: 1px solid var(--rule);
	}
	.figure {
		flex: 0 0 41%;
		min-height: 14rem;
		padding: 0.3rem 0.5rem;
		border-bottom: 1px solid var(--rule);
		background: var(--paper);
	}
	.beside {
		flex: 1;
		min-height: 0;
		overflow: auto;
		padding: 0.8rem;
		display: flex;
		flex-direction: column;
		gap: 0.7rem;
	}
	.resumed {
		display: flex;
		gap: 0.8rem;
		align-items: center;
		margin: 0.4rem 0 0;
	}
	.part {
		padding: 0.7rem 0.9rem;
	}
	.part p {
		margin: 0 0 0.4rem;
	}
	.soft {
		margin: 0;
	}
	.more {
		margin-top: 1rem;
	}
	.missing {
		color: var(--amber);
		font-weight: 600;
	}
	.meta {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: 0.5rem 0.8rem;
		align-items: center;
		margin: 0.6rem 0 0.2rem;
	}
	.foot {
		display: flex;
		gap: 1rem;
		align-items: center;
		justify-content: space-between;
		padding: 0.6rem 0.9rem;
		border-top: 1px solid var(--rule);
		background: var(--paper);
	}
	@media (max-width: 900px) {
		.measuring {
			grid-template-columns: 1fr;
			overflow: auto;
		}
		.form,
		.beside {
			overflow: visible;
		}
		aside {
			min-height: auto;
		}
	}
</style>
