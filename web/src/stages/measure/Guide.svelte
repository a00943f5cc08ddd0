<!-- Guided taking, hands busy: one measure at a time in large type, in the order that moves the wearer least. -->
<script lang="ts">
	import { tick } from 'svelte';
	import { searchParams } from 'sv-router';
	import type { Measure } from '../../lib/api/client';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { reading, shown, spoken } from '../../lib/units.svelte';
	import Doubts from './Doubts.svelte';
	import FigureViews from './FigureViews.svelte';
	import OneMeasure from './OneMeasure.svelte';
	import type { SheetTaking } from './sheet.svelte';

	interface Props {
		sheet: SheetTaking;
		keepWords: string;
		onkeep: () => void;
		onleave: () => void;
	}
	let { sheet, keepWords, onkeep, onleave }: Props = $props();

	const PREPARE = 'prepare';
	const DONE = 'done';
	const AGAIN = 'again:';

	const whole = $derived(searchParams.get('all') === 'yes');
	const used = $derived(new Set(shelf.all?.used ?? []));
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
	const again = $derived(place.startsWith(AGAIN));
	const symbol = $derived(again ? place.slice(AGAIN.length) : place);
	const measure = $derived<Measure | undefined>(shelf.measure(symbol));
	const at = $derived(order.findIndex((m) => m.symbol === symbol));
	const station = $derived(shelf.all?.stations.find((s) => s.key === measure?.station));
	const key = $derived(sheet.hasSides(symbol) ? `${symbol}.left` : symbol);
	const found = $derived(sheet.review?.readings.find((r) => r.symbol === key));
	const retake = $derived(sheet.review?.retake.find((r) => r.symbol === symbol));
	const count = $derived(1 + (sheet.readings[key]?.again?.length ?? 0));
	/** Which reading is typed here: the first on the way through, the next one when it is read again. */
	let readingNumber = $state(0);
	let field = $state<HTMLInputElement | null>(null);

	$effect(() => {
		if (measure) sheet.pointed = measure.symbol;
	});

	async function go(to: string): Promise<void> {
		sheet.place = to;
		sheet.changed();
		readingNumber = to.startsWith(AGAIN)
			? 1 + (sheet.readings[to.slice(AGAIN.length)]?.again?.length ?? 0)
			: 0;
		await tick();
		(field ?? document.querySelector<HTMLElement>('[data-first]'))?.focus();
		field?.select();
	}

	/** The place after this one: the next measure, then what is to be read twice, then the end. */
	function following(): string {
		if (place === PREPARE) return order[0]?.symbol ?? DONE;
		if (place === DONE) return DONE;
		const passed = again ? (shelf.all?.measures ?? []).findIndex((m) => m.symbol === symbol) : -1;
		if (!again) {
			const next = order[at + 1];
			if (next) return next.symbol;
		}
		const index = (m: Measure): number => (shelf.all?.measures ?? []).indexOf(m);
		const once = twice.find((m) => index(m) > passed && m.symbol !== symbol);
		return once ? AGAIN + once.symbol : DONE;
	}

	function before(): string {
		if (place === DONE) return order.at(-1)?.symbol ?? PREPARE;
		if (again) return order.at(-1)?.symbol ?? PREPARE;
		return order[at - 1]?.symbol ?? PREPARE;
	}

	async function onward(): Promise<void> {
		const reads = sheet.text(key, readingNumber).trim();
		if (reads) {
			await sheet.judged();
			const now = sheet.review?.readings.find((r) => r.symbol === key);
			// What cannot be read is not left behind; what disagrees is read once more at once.
			if (now?.error) return;
			if (now?.asks_again && count < 5) {
				readingNumber = count;
				await tick();
				field?.focus();
				return;
			}
		}
		await sheet.judged();
		await go(following());
	}

	function keyed(event: KeyboardEvent): void {
		if (event.key === 'Enter') {
			event.preventDefault();
			void onward();
		} else if (event.key === 'ArrowDown') {
			event.preventDefault();
			void go(following());
		} else if (event.key === 'ArrowUp') {
			event.preventDefault();
			void go(before());
		} else if (event.key === 'Escape') onleave();
	}

	function tickOff(item: string): void {
		sheet.prepared = sheet.prepared.includes(item)
			? sheet.prepared.filter((p) => p !== item)
			: [...sheet.prepared, item];
		sheet.changed();
	}

	const done = $derived(order.filter((m) => sheet.isTaken(m.symbol)).length);
	const skipped = $derived(order.filter((m) => !sheet.isTaken(m.symbol)));
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
				<button class="button main" onclick={() => go(following())}>Begin</button>
				<button class="button" onclick={onleave}>Back to the sheet</button>
			</div>
		{:else if place === DONE}
			<h2>{done} of {order.length} taken</h2>
			<Doubts {sheet} ongo={(s) => go(AGAIN + s)} />
			{#if skipped.length}
				<p>
					Skipped:
					{#each skipped as m, i (m.symbol)}<button class="link" onclick={() => go(m.symbol)}
							>{m.name.toLowerCase()}</button
						>{i < skipped.length - 1 ? ', ' : '.'}
					{/each}
					<span class="soft">What is not taken is estimated.</span>
				</p>
			{/if}
			{#if twice.length}
				<p>
					Still read once, with nothing to vouch for it:
					{#each twice as m, i (m.symbol)}<button class="link" onclick={() => go(AGAIN + m.symbol)}
							>{m.name.toLowerCase()}</button
						>{i < twice.length - 1 ? ', ' : '.'}
					{/each}
				</p>
			{/if}
			<div class="deeds">
				<button
					class="button main"
					data-first
					disabled={sheet.busy || !sheet.review?.can_draft}
					onclick={onkeep}>{keepWords}</button
				>
				<button class="button" onclick={onleave}>Back to the sheet</button>
			</div>
		{:else if measure}
			<p class="station">
				<strong>{again ? 'Once more' : station?.title}</strong>
				<span class="soft">{again ? 'no other measure would notice a slip here' : station?.stand}</span>
				<span class="soft count figures">{again ? '' : `${at + 1} of ${order.length}`}</span>
			</p>
			<label class="name" for="guide-field"
				>{measure.name}{readingNumber ? `, ${ORDINAL[readingNumber]}` : ''}{sheet.hasSides(symbol)
					? ', left'
					: ''}</label
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
				<span class="unit">{measure.kind === 'cup' ? '' : reading.unit}</span>
				<span class="other figures">
					{#if found?.cm && sheet.text(key, readingNumber).trim()}
						{reading.unit === 'cm' ? `${found.shown_in} in` : `${found.shown_cm} cm`}
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
				<button class="button" onclick={() => go(following())}>Skip <kbd>↓</kbd></button>
				<button class="button" onclick={() => go(before())}>Back <kbd>↑</kbd></button>
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
	.large h2 {
		font-size: 1.9rem;
		margin: 0.4rem 0 0.8rem;
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
	.soft {
		color: var(--ink-soft);
		font-size: 0.98rem;
	}
	.deeds {
		display: flex;
		gap: 0.6rem;
		margin-top: 1rem;
	}
	kbd {
		font-family: inherit;
		font-size: 0.85em;
		opacity: 0.8;
	}
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
	.link {
		text-decoration: underline;
		cursor: pointer;
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
