<!-- The fitting with busy hands: one thing at a time in large type, in the order in which a fitting goes. -->
<script lang="ts">
	import { tick } from 'svelte';
	import type { BodyDrawing, Finding, Kind, Muslin, Outcome, Round } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { typedInto } from '../../lib/parts/keys';
	import { spoken } from '../../lib/units.svelte';
	import { OUTCOMES, pencil } from '../../lib/words';
	import BodyFigure from './BodyFigure.svelte';
	import { searched } from './kinds';
	import Photos from './Photos.svelte';
	import Pins from './Pins.svelte';
	import QuickFinding from './QuickFinding.svelte';
	import { askedAt, movementAt, onFrom, PINS, placesOf, PREPARE } from './way';

	interface Props {
		muslin: Muslin;
		round: Round;
		kinds: Kind[];
		/** Which amounts are asked for on this garment, by kind. */
		asked: Map<string, readonly string[]>;
		figure: BodyDrawing | null;
		place: string;
		ongo: (place: string) => void;
		onleave: () => void;
	}
	let { muslin, round, kinds, asked, figure, place, ongo, onleave }: Props = $props();

	const desk = getDesk();
	/** So many matches are shown: what is looked for stands among the first, or another word is better. */
	const MOST = 8;
	const CHOICES = Object.keys(OUTCOMES) as Outcome[];
	const places = $derived(placesOf(muslin, round));
	const here = $derived(places.includes(place) ? place : PREPARE);
	const finding = $derived(round.asks.find((one) => one.uid === askedAt(here)) ?? null);
	const movement = $derived(muslin.movements.find((one) => one.key === movementAt(here)) ?? null);
	let typed = $state('');
	let chosen = $state<Kind | null>(null);
	/** The kinds at the spot of the figure that was pointed at. */
	let spotted = $state.raw<string[] | null>(null);
	let field = $state<HTMLInputElement | null>(null);

	/** What is usually seen at this movement comes first. */
	const offered = $derived.by(() => {
		const lying = spotted ? kinds.filter((kind) => spotted!.includes(kind.key)) : kinds;
		const usual = (kind: Kind): number => Number(kind.movement !== movement?.key);
		return [...searched(lying, typed)].sort((a, b) => usual(a) - usual(b));
	});
	const found = $derived(round.findings.filter((one) => one.movement === movement?.key));
	const notes = $derived(round.findings.length);

	function outcomeOf(one: Finding): Outcome | undefined {
		return one.answers.find((answer) => answer.round === round.number)?.outcome;
	}

	async function go(by: number): Promise<void> {
		if (movement && by > 0 && !round.watched.includes(movement.key))
			await desk.deeds.seeTo(
				round.number,
				{ watched: [...round.watched, movement.key] },
				`watched: ${movement.key}`,
			);
		reset();
		ongo(onFrom(places, here, by));
		await tick();
		(field ?? document.querySelector<HTMLElement>('[data-first]'))?.focus();
	}

	function reset(): void {
		typed = '';
		chosen = null;
		spotted = null;
	}

	async function say(outcome: Outcome): Promise<void> {
		if (finding && (await desk.deeds.answer(round.number, finding, outcome, OUTCOMES[outcome]))) await go(1);
	}

	async function recorded(): Promise<void> {
		reset();
		await tick();
		field?.focus();
	}

	function toggle(key: string): void {
		const prepared = round.prepared.includes(key)
			? round.prepared.filter((one) => one !== key)
			: [...round.prepared, key];
		void desk.deeds.seeTo(round.number, { prepared }, 'tick it off');
	}

	function keyed(event: KeyboardEvent): void {
		const target = event.target as HTMLElement;
		if (target.closest('[role="dialog"]')) return;
		if (event.key === 'Escape') {
			event.preventDefault();
			if (chosen) reset();
			else onleave();
			return;
		}
		if (chosen) return;
		if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
			event.preventDefault();
			void go(event.key === 'ArrowDown' ? 1 : -1);
		} else if (finding && !typedInto(target) && CHOICES[Number(event.key) - 1]) {
			// Here the figures answer: they do not change the stage.
			event.stopPropagation();
			void say(CHOICES[Number(event.key) - 1]!);
		}
	}

	function search(event: KeyboardEvent): void {
		if (event.key !== 'Enter') return;
		event.preventDefault();
		if (!typed.trim() && !spotted) void go(1);
		else if (offered[0]) chosen = offered[0];
	}
</script>

<svelte:window onkeydowncapture={keyed} />
<div class="guide">
	<section class="large" aria-live="polite" aria-label="The fitting, one thing at a time">
		<div class="progress" role="img" aria-label="{places.indexOf(here) + 1} of {places.length}">
			{#each places as one (one)}
				<span class:passed={places.indexOf(one) < places.indexOf(here)} class:here={one === here}></span>
			{/each}
		</div>
		{#if here === PREPARE}
			<h2>Before it goes on</h2>
			<ul class="checklist">
				{#each muslin.items as item, i (item.key)}
					<li>
						<label>
							<input
								type="checkbox"
								data-first={i === 0 ? '' : undefined}
								checked={round.prepared.includes(item.key)}
								disabled={desk.deeds.busy}
								onchange={() => toggle(item.key)}
							/>
							<span><strong>{item.title}.</strong> <span class="soft">{spoken(item.says)}</span></span>
						</label>
					</li>
				{/each}
			</ul>
			<Pins {round} which="in" large />
			{#each muslin.cautions as caution (caution)}<p class="soft">{caution}</p>{/each}
		{:else if finding}
			<p class="station">
				<strong>Did it help?</strong> <span class="soft">from muslin {finding.round}</span>
			</p>
			<h2>{finding.seen}{finding.side === 'both' ? '' : `, ${finding.side} half`}</h2>
			<p class="says">{finding.remedy_title || 'It was left as it was.'}</p>
			<div class="outcomes" role="group" aria-label="Did it help?">
				{#each CHOICES as outcome, i (outcome)}
					<button
						class="button"
						data-first={i === 0 ? '' : undefined}
						aria-pressed={outcomeOf(finding) === outcome}
						disabled={desk.deeds.busy}
						onclick={() => say(outcome)}>{OUTCOMES[outcome]} <kbd>{i + 1}</kbd></button
					>
				{/each}
			</div>
			<Photos {finding} editable={false} />
		{:else if movement}
			<p class="station">
				<strong>Movement {muslin.movements.indexOf(movement) + 1} of {muslin.movements.length}</strong>
				{#if round.watched.includes(movement.key)}<span class="soft">made already</span>{/if}
			</p>
			<h2 class="movement">{movement.key}</h2>
			<p class="says">{movement.says}</p>
			{#if chosen}
				{#key chosen.key}
					<QuickFinding
						kind={chosen}
						asked={asked.get(chosen.key) ?? []}
						round={round.number}
						movement={movement.key}
						ondone={recorded}
						onleave={reset}
					/>
				{/key}
			{:else}
				<input
					class="field search"
					type="search"
					bind:this={field}
					bind:value={typed}
					onkeydown={search}
					aria-label="What does it show?"
					placeholder="what does it show? gapes, tight, sleeve…"
				/>
				{#if typed.trim() || spotted}
					<ul class="offered">
						{#each offered.slice(0, MOST) as kind, i (kind.key)}
							<li>
								<button onclick={() => (chosen = kind)}
									>{kind.seen}{#if i === 0}<kbd>Enter</kbd>{/if}</button
								>
							</li>
						{:else}
							<li class="soft">Nothing of that is known here. Try another word.</li>
						{/each}
					</ul>
				{/if}
				{#each found as one (one.uid)}
					<div class="noted">
						<span class="lead" style:background={pencil(round.number)}></span>
						<span>{one.seen}{one.side === 'both' ? '' : `, ${one.side} half`}</span>
						<Photos finding={one} editable />
					</div>
				{/each}
			{/if}
		{:else if here === PINS}
			<h2>It is off again</h2>
			<p class="says">
				{notes ? `${notes} ${notes === 1 ? 'finding' : 'findings'} noted.` : 'Nothing was noted.'} Count the pins
				before the muslin is put away.
			</p>
			<Pins {round} which="out" large />
			<button class="button main" data-first onclick={onleave}>To the paper</button>
		{/if}
		{#if !chosen}
			<div class="keys">
				{#if here !== PINS}<button class="button main" onclick={() => go(1)}>Next <kbd>↓</kbd></button>{/if}
				<button class="button" onclick={() => go(-1)} disabled={here === PREPARE}>Back <kbd>↑</kbd></button>
				<button class="button" onclick={onleave}>Pause <kbd>Esc</kbd></button>
			</div>
		{/if}
	</section>
	{#if figure && movement}
		<div class="figures-row">
			<BodyFigure
				{figure}
				view="front"
				{kinds}
				findings={round.findings}
				chosen={chosen?.key ?? null}
				onspot={(keys) => ((chosen = null), (spotted = keys))}
			/>
			<BodyFigure
				{figure}
				view="back"
				{kinds}
				findings={round.findings}
				chosen={chosen?.key ?? null}
				onspot={(keys) => ((chosen = null), (spotted = keys))}
			/>
		</div>
	{/if}
</div>

<style>
	.guide {
		display: flex;
		gap: 2rem;
		height: 100%;
		overflow: auto;
		padding: 1rem 1.6rem;
	}
	.large {
		flex: 1.5;
		min-width: 0;
		font-size: 1.1rem;
	}
	.figures-row {
		flex: 1;
		display: flex;
		min-width: 18rem;
	}
	.progress {
		display: flex;
		gap: 3px;
		margin-bottom: 0.8rem;
	}
	.progress span {
		flex: 1;
		height: 6px;
		background: var(--rule);
	}
	.progress .passed {
		background: var(--moss);
	}
	.progress .here {
		background: var(--chalk);
	}
	h2 {
		font-size: 1.9rem;
		margin: 0.2rem 0 0.4rem;
	}
	.movement::first-letter {
		text-transform: uppercase;
	}
	.station {
		margin: 0;
	}
	.says {
		font-size: 1.25rem;
		margin: 0.2rem 0 0.8rem;
	}
	.search {
		width: 100%;
		min-height: 3.2rem;
		font-size: 1.35rem;
	}
	ul {
		list-style: none;
		margin: 0.4rem 0;
		padding: 0;
	}
	.offered button {
		display: flex;
		justify-content: space-between;
		width: 100%;
		padding: 0.55rem 0.4rem;
		text-align: left;
		font-size: 1.2rem;
		border-bottom: 1px solid var(--rule);
		cursor: pointer;
	}
	.offered button:hover {
		background: var(--chalk-soft);
	}
	.checklist label {
		display: flex;
		gap: 0.7rem;
		padding: 0.2rem 0;
	}
	.checklist input {
		flex: none;
		width: 1.4rem;
		height: 1.4rem;
		margin-top: 0.2rem;
	}
	.outcomes,
	.keys {
		display: flex;
		flex-wrap: wrap;
		gap: 0.7rem;
		margin: 0.8rem 0;
	}
	.outcomes .button {
		min-height: 3.4rem;
		font-size: 1.2rem;
	}
	.outcomes [aria-pressed='true'] {
		background: var(--chalk-soft);
		font-weight: 600;
	}
	.noted {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
		align-items: center;
		padding: 0.3rem 0;
		border-bottom: 1px solid var(--rule);
	}
	.lead {
		width: 0.8rem;
		height: 0.8rem;
		border-radius: 50%;
	}
	kbd {
		font-family: inherit;
		font-size: 0.8rem;
		padding: 0 0.35rem;
		border: 1px solid currentColor;
		border-radius: 4px;
		opacity: 0.7;
	}
	@media (max-width: 900px) {
		.guide {
			flex-direction: column;
		}
	}
</style>
