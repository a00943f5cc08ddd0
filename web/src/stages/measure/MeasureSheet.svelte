<!-- The measuring sheet: what the block can use, typed in either unit, looked at while it is typed. -->
<script lang="ts">
	import {
		answered,
		api,
		asProblem,
		type LengthIn,
		type Measure,
		type Problem,
		type Review,
		type Sheet,
	} from '../../lib/api/client';
	import { Latest } from '../../lib/api/latest';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { reading, shown, type Unit } from '../../lib/units.svelte';
	import DeleteWearer from './DeleteWearer.svelte';
	import MeasureRow from './MeasureRow.svelte';

	interface Props {
		wearer: string;
		wearerName: string;
		/** The newest sheet, to start from. */
		from: Sheet | null;
		keepWords: string;
		onkept: (sheet: Sheet) => Promise<void> | void;
	}
	let { wearer, wearerName, from, keepWords, onkept }: Props = $props();

	const today = new Date().toISOString().slice(0, 10);
	// svelte-ignore state_referenced_locally
	const store = `izett-sheet-${wearer}`;
	let readings = $state<Record<string, LengthIn>>({});
	let takenOn = $state(today);
	let takenBy = $state<'helper' | 'alone' | 'scan'>('helper');
	let worn = $state('');
	let review = $state<Review | null>(null);
	let problem = $state<Problem | null>(null);
	let busy = $state(false);
	let resumed = $state(false);
	let asked = $state<string | null>(null);

	const reviews = new Latest<Record<string, LengthIn>, Review>(
		(wish) => answered(api.POST('/api/measures/review', { body: { readings: wish } })),
		(result) => {
			review = result;
			if (problem?.offline) problem = null;
		},
		(error) => (problem = asProblem(error)),
	);

	function start(): void {
		const kept = localStorage.getItem(store);
		if (kept) {
			const draft = JSON.parse(kept) as { readings: Record<string, LengthIn>; worn: string };
			readings = draft.readings;
			worn = draft.worn;
			resumed = true;
		} else if (from) {
			readings = Object.fromEntries(
				from.readings.map((r) => [r.symbol, { text: r.text, unit: r.unit as Unit }]),
			);
			worn = from.worn;
		}
		reviews.wish(readings);
	}
	start();

	function typed(symbol: string, text: string): void {
		const was = readings[symbol];
		readings[symbol] = { text, unit: was && was.text === text ? was.unit : reading.unit };
		localStorage.setItem(store, JSON.stringify({ readings, worn }));
		reviews.wish($state.snapshot(readings));
	}

	function startAfresh(): void {
		localStorage.removeItem(store);
		resumed = false;
		readings = {};
		worn = '';
		start();
	}

	const used = $derived(
		(shelf.all?.used ?? []).map((s) => shelf.measure(s)).filter((m): m is Measure => !!m),
	);
	const required = $derived(new Set((shelf.all?.required ?? []).flat()));
	const groups = $derived([
		{ title: 'To begin with', of: used.filter((m) => required.has(m.symbol)) },
		{
			title: 'Girths',
			of: used.filter((m) => !required.has(m.symbol) && /girth|_arc/.test(m.symbol)),
		},
		{
			title: 'Lengths',
			of: used.filter(
				(m) => !required.has(m.symbol) && !/girth|_arc|across|span|shoulder_length/.test(m.symbol),
			),
		},
		{ title: 'Widths and shoulder', of: used.filter((m) => /across|span|shoulder_length/.test(m.symbol)) },
	]);
	const taken = $derived(review?.readings.filter((r) => !r.error).length ?? 0);
	const unread = $derived(review?.readings.filter((r) => r.error) ?? []);
	const judged = $derived(Object.fromEntries((review?.readings ?? []).map((r) => [r.symbol, r])));
	const inContradiction = $derived(new Set(review?.contradictions.flatMap((c) => c.symbols) ?? []));

	function next(event: KeyboardEvent): void {
		if (event.key !== 'Enter') return;
		event.preventDefault();
		const fields = [...document.querySelectorAll<HTMLInputElement>('[data-measure]')];
		const at = fields.indexOf(event.target as HTMLInputElement);
		(fields[at + 1] ?? document.querySelector<HTMLElement>('#keep'))?.focus();
	}

	async function keep(): Promise<void> {
		busy = true;
		try {
			const sheet = await answered(
				api.POST('/api/wearers/{wearer_id}/sheets', {
					params: { path: { wearer_id: wearer } },
					body: { taken_on: takenOn, taken_by: takenBy, worn, readings: $state.snapshot(readings) },
				}),
			);
			localStorage.removeItem(store);
			resumed = false;
			problem = null;
			await onkept(sheet);
		} catch (error) {
			problem = asProblem(error);
		} finally {
			busy = false;
		}
	}
</script>

<div class="measuring">
	<section class="form" aria-label="Measures">
		{#if resumed}
			<p class="note resumed">
				What you had typed for {wearerName} and not kept is here again.
				<button class="button small" onclick={startAfresh}>Start from the last sheet</button>
			</p>
		{/if}
		{#each groups as group (group.title)}
			{#if group.of.length}
				<h2>{group.title}</h2>
				<div class="rows">
					{#each group.of as measure (measure.symbol)}
						<MeasureRow
							{measure}
							text={readings[measure.symbol]?.text ?? ''}
							unit={(readings[measure.symbol]?.unit as Unit | undefined) ?? reading.unit}
							review={judged[measure.symbol]}
							contradicted={inContradiction.has(measure.symbol)}
							ontext={(text) => typed(measure.symbol, text)}
							onkeydown={next}
							onfocus={() => (asked = measure.symbol)}
						/>
					{/each}
				</div>
			{/if}
		{/each}
	</section>
	<aside>
		{#if problem}
			<ProblemNote {problem}>
				{#if problem.offline}<button class="button small main" onclick={keep}>Try again</button>{/if}
			</ProblemNote>
		{/if}
		{#if asked}
			{@const measure = shelf.measure(asked)}
			{#if measure}
				<section class="sheet how" aria-live="polite">
					<h2>{measure.name}</h2>
					<p>{measure.how}</p>
					<p class="soft figures">
						usually {shown(measure.low)} to {shown(measure.high)}; two readings within {shown(
							measure.tolerance,
						)}
					</p>
				</section>
			{/if}
		{/if}
		{#if review?.contradictions.length}
			<section class="note" aria-live="polite">
				<h2>These do not agree</h2>
				<ul>
					{#each review.contradictions as c (c.key)}
						<li>
							{c.message}, by <span class="figures">{shown(c.amount)}</span>. Take again first:
							<strong>{shelf.name(c.symbols[0] ?? '')}</strong>{#if c.symbols.length > 1}, then {c.symbols
									.slice(1)
									.map((s) => shelf.name(s).toLowerCase())
									.join(', ')}{/if}.
						</li>
					{/each}
				</ul>
			</section>
		{/if}
		<section class="sheet about">
			<p>
				<strong class="figures">{taken}</strong> taken.
				{#if review?.can_draft}What is not taken is estimated, and marked so.{/if}
			</p>
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
				<input id="on" class="field" type="date" bind:value={takenOn} />
				<label for="by">By</label>
				<select id="by" class="field" bind:value={takenBy}>
					<option value="helper">a helper</option>
					<option value="alone">the wearer, alone</option>
				</select>
				<label for="worn">Over</label>
				<input id="worn" class="field" bind:value={worn} placeholder="which foundation garments" />
			</div>
			<button id="keep" class="button main" disabled={busy || !review?.can_draft} onclick={keep}
				>{keepWords}</button
			>
		</section>
		{#each shelf.all?.cautions.measure ?? [] as caution (caution)}
			<p class="soft">{caution}</p>
		{/each}
		<DeleteWearer {wearer} name={wearerName} />
	</aside>
</div>

<style>
	.measuring {
		display: grid;
		grid-template-columns: 1fr 23rem;
		height: 100%;
		min-height: 0;
	}
	.form {
		overflow: auto;
		padding: 0.8rem 1.2rem 2rem;
	}
	.form h2 {
		font-size: 1.1rem;
		margin: 1rem 0 0.3rem;
	}
	.rows {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(22rem, 1fr));
		gap: 0 1.6rem;
	}
	aside {
		overflow: auto;
		border-left: 1px solid var(--rule);
		padding: 1rem;
		display: flex;
		flex-direction: column;
		gap: 0.8rem;
	}
	.resumed {
		display: flex;
		gap: 0.8rem;
		align-items: center;
	}
	.how,
	.about {
		padding: 0.9rem 1rem;
	}
	aside h2 {
		font-size: 1.1rem;
		margin: 0 0 0.3rem;
	}
	aside p {
		margin: 0 0 0.4rem;
	}
	aside ul {
		margin: 0;
		padding-left: 1.1rem;
		list-style: disc;
	}
	.soft {
		color: var(--ink-soft);
		font-size: 0.92rem;
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
		margin: 0.6rem 0 0.9rem;
	}
	@media (max-width: 900px) {
		.measuring {
			grid-template-columns: 1fr;
			overflow: auto;
		}
		.form,
		aside {
			overflow: visible;
		}
	}
</style>
