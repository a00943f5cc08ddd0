<!-- What to take next, what to read twice, what follows from the measures, and the dart that each source would give. -->
<script lang="ts">
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { shown, spoken } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';
	import type { SheetTaking } from './sheet.svelte';

	interface Props {
		sheet: SheetTaking;
		/** The measures that the block in hand can use. */
		used: Set<string>;
		chosen: Record<string, number>;
		onallow: (allowance: string, cm: number | null) => void;
		ongo: (symbol: string) => void;
	}
	let { sheet, used, chosen, onallow, ongo }: Props = $props();

	const THREE = 3;
	const next = $derived((sheet.advice?.next ?? []).filter((n) => n.by_spread).slice(0, THREE));
	const twice = $derived((sheet.review?.unguarded ?? []).filter((s) => used.has(s)));
</script>

{#if sheet.review?.offers.length}
	<section class="sheet part" data-offers>
		<h2>Measured alone</h2>
		{#each sheet.review.offers as offer (offer.allowance)}
			<p>{offer.says}</p>
			{#if chosen[offer.allowance]}
				<p>
					<strong class="figures">{shown(chosen[offer.allowance] ?? 0)}</strong> back expansion is in the
					draft; the reading stays as it is.
					<button class="button small" onclick={() => onallow(offer.allowance, null)}>Take it out</button>
				</p>
			{:else}
				<button class="button small" onclick={() => onallow(offer.allowance, offer.usual)}
					>Add {shown(offer.usual)} to the draft’s back</button
				>
			{/if}
		{/each}
	</section>
{/if}
{#if sheet.advising.underWay}
	<section class="sheet part" data-advising>
		<p role="status">
			Working out what to take next{sheet.advising.work?.of
				? `: ${sheet.advising.work.done} of ${sheet.advising.work.of} measures tried`
				: '…'}
			<button class="button small" onclick={() => sheet.advising.stop()}>Stop</button>
		</p>
		<progress
			aria-label="What to take next"
			max={sheet.advising.work?.of || undefined}
			value={sheet.advising.work?.of ? sheet.advising.work.done : undefined}
		></progress>
	</section>
{:else if sheet.advising.stopped}
	<section class="sheet part" data-advising>
		<p>
			Stopped: what to take next is not worked out.
			<button class="button small" onclick={() => sheet.advise()}>Work it out</button>
		</p>
	</section>
{:else if sheet.advising.problem && sheet.advising.work}
	<ProblemNote problem={sheet.advising.problem}>
		<button class="button small" onclick={() => sheet.advise()}>Work it out again</button>
	</ProblemNote>
{/if}
{#if next.length}
	<section class="sheet part" data-next>
		<h2>Taking these next helps most</h2>
		<ol>
			{#each next as n (n.symbol)}
				<li>
					<button class="link" onclick={() => ongo(n.symbol)}>{shelf.name(n.symbol)}</button>
					<span class="soft figures"
						>estimated to ± {shown(n.spread)}: the draft may be {shown(n.by_spread ?? 0)} off ({lineName(
							n.line.split(': ')[1] ?? '',
						)}); a tape’s tolerance moves it {shown(n.by_tolerance ?? 0)}</span
					>
				</li>
			{/each}
		</ol>
	</section>
{/if}
{#if twice.length}
	<section class="sheet part">
		<h2>Read twice</h2>
		<p class="soft">No other measure on the sheet would notice a slip of {shown(5)} here:</p>
		<p>
			{#each twice as symbol, i (symbol)}<button class="link" onclick={() => ongo(symbol)}
					>{shelf.name(symbol)}</button
				>{i < twice.length - 1 ? ', ' : '.'}
			{/each}
		</p>
	</section>
{/if}
{#if sheet.advice?.darts.length}
	<section class="sheet part" data-darts>
		<h2>The bust dart, by source</h2>
		<table class="figures">
			<tbody>
				{#each sheet.advice.darts as dart (dart.key)}
					<tr class:counts={dart.counts}>
						<td>{dart.name}</td>
						{#if dart.degrees !== null}
							<td>{dart.degrees.toFixed(1)}°</td>
							<td>{shown(dart.mouth)}</td>
							<td>{dart.counts ? 'drawn' : ''}</td>
						{:else}
							<td colspan="3" class="soft">
								{#if dart.missing.length}without {dart.missing
										.map((s) => shelf.name(s).toLowerCase())
										.join(', ')}{:else}no draft by it{/if}
							</td>
						{/if}
					</tr>
				{/each}
			</tbody>
		</table>
		<p class="soft">angle at the bust point, opening at the side seam</p>
	</section>
{/if}
{#if sheet.review?.derived.length}
	<section class="sheet part">
		<h2>What follows</h2>
		<table class="figures">
			<tbody>
				{#each sheet.review.derived as d (d.key)}
					<tr title={spoken(d.formula)}><td>{d.name}</td><td>{shown(d.cm)}</td></tr>
				{/each}
			</tbody>
		</table>
	</section>
{/if}

<style>
	progress {
		width: 100%;
		accent-color: var(--chalk);
	}
	[role='status'] {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 0.6rem;
	}
	.part {
		padding: 0.7rem 0.9rem;
	}
	h2 {
		font-size: 1.1rem;
		margin: 0 0 0.3rem;
	}
	p {
		margin: 0 0 0.35rem;
	}
	ol {
		list-style: decimal;
		margin: 0;
		padding-left: 1.2rem;
	}
	.link {
		text-decoration: underline;
		cursor: pointer;
	}
	table {
		width: 100%;
	}
	td {
		padding: 0.1rem 0.3rem 0.1rem 0;
	}
	td:not(:first-child) {
		text-align: right;
	}
	tr.counts td {
		font-weight: 600;
	}
</style>
