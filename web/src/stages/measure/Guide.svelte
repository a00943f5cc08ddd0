<!-- Guided taking, hands busy: one measure at a time in large type, in the order that moves the wearer least. -->
<script lang="ts">
	import { tick } from 'svelte';
	import { searchParams } from 'sv-router';
	import type { Measure } from '../../lib/api/client';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { shown, spoken } from '../../lib/units.svelte';
	import FigureViews from './FigureViews.svelte';
	import GuideEnd from './GuideEnd.svelte';
	import OneMeasure from './OneMeasure.svelte';
	import Preparation from './Preparation.svelte';
	import { MOST_READINGS, type SheetTaking } from './sheet.svelte';
	import { after, before, DONE, isAgain, PREPARE, symbolAt, type Way } from './way';

	interface Props {
		sheet: SheetTaking;
		keepWords: string;
		onkeep: () => void;
		onleave: () => void;
	}
	let { sheet, keepWords, onkeep, onleave }: Props = $props();

	const whole = $derived(searchParams.get('all') === 'yes');
	const { used } = $derived(shelf.measuresOf(sheet.blocks));
	const order = $derived((shelf.all?.measures ?? []).filter((m) => whole || used.has(m.symbol)));
	/** Measures to read once more: two readings that disagree, or a first one that nothing else vouches for. */
	const twice = $derived(
		order.filter(
			(m) =>
				sheet.review?.unguarded.includes(m.symbol) ||
				sheet.review?.readings.some((r) => r.symbol === m.symbol && r.asks_again),
		),
	);
	const place = $derived(sheet.place || PREPARE);
	const again = $derived(isAgain(place));
	const symbol = $derived(symbolAt(place));
	const way = $derived<Way>({
		order: order.map((m) => m.symbol),
		twice: twice.map((m) => m.symbol),
	});
	const measure = $derived<Measure | undefined>(shelf.measure(symbol));
	const at = $derived(order.findIndex((m) => m.symbol === symbol));
	const station = $derived(shelf.all?.stations.find((s) => s.key === measure?.station));
	/** Left before right, where the two are taken apart. */
	let side = $state<'left' | 'right'>('left');
	const apart = $derived(sheet.hasSides(symbol));
	const key = $derived(apart ? `${symbol}.${side}` : symbol);
	const found = $derived(sheet.review?.readings.find((r) => r.symbol === key));
	const retake = $derived(sheet.review?.retake.find((r) => r.symbol === symbol));
	const count = $derived(1 + (sheet.readings[key]?.again?.length ?? 0));
	/** Which reading is typed here: the first on the way through, the next one when it is read again. */
	// svelte-ignore state_referenced_locally
	let readingNumber = $state(nextReading(sheet.place));
	const typedIn = $derived(sheet.unit(key, readingNumber));
	let field = $state<HTMLInputElement | null>(null);

	$effect(() => {
		sheet.pointed = measure?.symbol ?? null;
	});

	/** Return which reading comes next at a place: 0 the first, on the way through. */
	function nextReading(to: string): number {
		return isAgain(to) ? 1 + (sheet.readings[symbolAt(to)]?.again?.length ?? 0) : 0;
	}

	async function go(to: string): Promise<void> {
		sheet.place = to;
		sheet.changed();
		side = 'left';
		readingNumber = nextReading(to);
		await toField();
	}

	async function toField(): Promise<void> {
		await tick();
		(field ?? document.querySelector<HTMLElement>('[data-first]'))?.focus();
		field?.select();
	}

	async function onward(): Promise<void> {
		const reads = sheet.text(key, readingNumber).trim();
		if (reads) {
			await sheet.judged();
			const now = sheet.review?.readings.find((r) => r.symbol === key);
			// What cannot be read is not left behind; what disagrees is read once more at once.
			if (now?.error) return;
			if (now?.asks_again && count < MOST_READINGS) {
				readingNumber = count;
				await toField();
				return;
			}
		}
		await sheet.judged();
		if (apart && side === 'left') {
			side = 'right';
			readingNumber = 0;
			await toField();
		} else await go(after(place, way));
	}

	function keyed(event: KeyboardEvent): void {
		if (event.key === 'Enter') {
			event.preventDefault();
			void onward();
		} else if (event.key === 'ArrowDown') {
			event.preventDefault();
			void go(after(place, way));
		} else if (event.key === 'ArrowUp') {
			event.preventDefault();
			void go(before(place, way));
		} else if (event.key === 'Escape') onleave();
	}

	const done = $derived(order.filter((m) => sheet.isTaken(m.symbol)).length);
	const ORDINAL = ['', 'second reading', 'third reading', 'fourth reading', 'fifth reading'];
</script>

<svelte:window onkeydown={(e) => !(e.target as HTMLElement).closest('input, select, button') && keyed(e)} />
<div class="guide">
	<section class="large" aria-live="polite" aria-label="Guided taking">
		<div class="progress" role="img" aria-label="{done} of {order.length} taken">
			{#each order as m (m.symbol)}
				<span class:taken={sheet.isTaken(m.symbol)} class:here={m.symbol === symbol}></span>
			{/each}
		</div>
		{#if place === PREPARE}
			<Preparation {sheet} onbegin={() => go(after(place, way))} {onleave} />
		{:else if place === DONE}
			<GuideEnd {sheet} {order} {twice} {keepWords} {onkeep} {onleave} ongo={go} />
		{:else if measure}
			<p class="station">
				<strong>{again ? 'Once more' : station?.title}</strong>
				<span class="soft">{again ? 'no other measure would notice a slip here' : station?.stand}</span>
				<span class="soft count figures">{again ? '' : `${at + 1} of ${order.length}`}</span>
			</p>
			<label class="name" for="guide-field"
				>{measure.name}{readingNumber ? `, ${ORDINAL[readingNumber]}` : ''}{apart ? `, ${side}` : ''}</label
			>
			<div class="entry">
				<input
					id="guide-field"
					class="figures"
					autocomplete="off"
					inputmode="text"
					bind:this={field}
					value={sheet.text(key, readingNumber)}
					oninput={(e) => sheet.type(key, e.currentTarget.value, readingNumber)}
					onkeydown={keyed}
					aria-invalid={found?.error ? 'true' : undefined}
					aria-describedby="guide-said"
				/>
				<span class="unit">{measure.kind === 'cup' ? '' : typedIn}</span>
				<span class="other figures">
					{#if found?.cm && sheet.text(key, readingNumber).trim()}
						{typedIn === 'cm' ? `${found.shown_in} in` : `${found.shown_cm} cm`}
					{/if}
				</span>
			</div>
			<div id="guide-said" class="said">
				{#if found?.error || found?.remark}
					<p class="odd">
						{spoken(found.error || found.remark)}
						{#if found.suggestion}<button
								class="button small"
								onclick={() => sheet.type(key, found.suggestion, readingNumber)}
								>Yes: {found.suggestion}</button
							>{/if}
					</p>
				{/if}
				{#if retake && sheet.text(key, readingNumber).trim()}
					<p class="odd">
						This does not go with the rest: about {shown(retake.would_fit)} would{retake.disagrees_with.length
							? `; it disagrees with ${retake.disagrees_with.map((s) => shelf.name(s).toLowerCase()).join(', ')}`
							: ''}.
					</p>
				{/if}
				{#if readingNumber && sheet.text(key)}
					<p class="soft figures">
						read before: {[
							sheet.text(key),
							...(sheet.readings[key]?.again ?? []).slice(0, readingNumber - 1).map((r) => r.text),
						].join(', ')}
						{#if found?.asks_again}
							– they lie {shown(found.apart)} apart: read it once more, the middle one counts{/if}
					</p>
				{/if}
			</div>
			<OneMeasure {measure} {sheet} brief />
			<div class="deeds keys">
				<button class="button main" onclick={onward}>Next <kbd>Enter</kbd></button>
				<button class="button" onclick={() => go(after(place, way))}>Skip <kbd>↓</kbd></button>
				<button class="button" onclick={() => go(before(place, way))}>Back <kbd>↑</kbd></button>
				<button class="button" onclick={onleave}>Pause <kbd>Esc</kbd></button>
			</div>
		{/if}
	</section>
	<div class="figure">
		<FigureViews {sheet} near tapes={measure ? [measure.symbol] : []} onchoose={() => {}} />
	</div>
</div>

<style>
	.guide {
		display: grid;
		grid-template-columns: 1fr 24rem;
		height: 100%;
		min-height: 0;
	}
	.large {
		padding: 1rem 2rem;
		overflow: auto;
		font-size: 1.15rem;
	}
	.progress {
		display: flex;
		gap: 3px;
		margin-bottom: 0.8rem;
	}
	.progress span {
		flex: 1;
		height: 7px;
		background: var(--rule);
		border-radius: 2px;
	}
	.progress .taken {
		background: var(--chalk);
	}
	.progress .here {
		outline: 2px solid var(--wax);
	}
	.station {
		display: flex;
		gap: 0.8rem;
		align-items: baseline;
		margin: 0;
	}
	.count {
		margin-left: auto;
	}
	.name {
		display: block;
		font-family: 'Literata Variable', serif;
		font-size: 2.5rem;
		line-height: 1.15;
		margin: 0.4rem 0 0.6rem;
	}
	.entry {
		display: flex;
		align-items: baseline;
		gap: 0.8rem;
	}
	.entry input {
		font-size: 4rem;
		line-height: 1.1;
		width: 15rem;
		padding: 0.1rem 0.8rem;
		border: 2px solid var(--ink);
		border-radius: var(--radius-container);
		background: var(--paper);
		text-align: right;
	}
	.entry input:focus {
		outline: 3px solid var(--chalk);
	}
	.entry input[aria-invalid='true'] {
		border-color: var(--wax);
	}
	.unit {
		font-size: 2rem;
	}
	.other {
		font-size: 1.6rem;
		color: var(--ink-soft);
	}
	.said {
		min-height: 1.9rem;
		margin: 0.3rem 0;
	}
	.said p {
		margin: 0;
	}
	.odd {
		color: var(--amber);
	}
	.large :global(h2) {
		font-size: 1.9rem;
		margin: 0.4rem 0 0.8rem;
	}
	.large :global(.soft) {
		color: var(--ink-soft);
		font-size: 0.98rem;
	}
	.large :global(.deeds) {
		display: flex;
		gap: 0.6rem;
		margin-top: 1rem;
	}
	kbd {
		font-family: inherit;
		font-size: 0.85em;
		opacity: 0.8;
	}
	.figure {
		border-left: 1px solid var(--rule);
		background: var(--paper);
		padding: 0.8rem;
		display: flex;
		flex-direction: column;
		min-height: 0;
	}
	.figure > :global(.views) {
		flex: 1;
		min-height: 0;
	}
	@media (max-width: 900px) {
		.guide {
			grid-template-columns: 1fr;
			overflow: auto;
		}
		.figure {
			height: 26rem;
			border-left: 0;
		}
	}
</style>
