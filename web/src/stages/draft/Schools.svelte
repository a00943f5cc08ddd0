<!-- Schools: where makers differ, the way of this job, and any other way laid under it with the distances listed. -->
<script lang="ts">
	import { onDestroy } from 'svelte';
	import type { School, Way } from '../../lib/api/client';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import { getDesk } from '../../lib/desk/context';
	import { withWay } from '../../lib/desk/recipe';
	import type { Trial } from '../../lib/desk/trial.svelte';
	import { shown, spoken } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';

	interface Props {
		ondraws: (names: string[]) => void;
		/** Told what is laid under the draft; null when it is taken away. */
		onlay: (other: Trial | null) => void;
	}
	let { ondraws, onlay }: Props = $props();

	const desk = getDesk();
	/** A line that moved less than this (cm) is not worth a line of the list. */
	const WORTH_TELLING = 0.1;

	let laid = $state.raw<{ school: string; way: string; trial: Trial } | null>(null);
	const schools = $derived(desk.trial.preview?.schools ?? []);
	const moved = $derived((laid?.trial.preview?.than ?? []).filter((move) => move.distance >= WORTH_TELLING));

	onDestroy(() => onlay(null));

	function isLaid(school: School, way: Way): boolean {
		return laid?.school === school.key && laid.way === way.key;
	}

	function lift(): void {
		laid = null;
		onlay(null);
	}

	function lay(school: School, way: Way): void {
		const { recipe, looked } = desk.trial;
		if (!recipe || isLaid(school, way)) return lift();
		const look = { than: recipe, source: looked.source };
		const trial = desk.another(withWay(recipe, school.key, way.key), look);
		laid = { school: school.key, way: way.key, trial };
		onlay(trial);
	}

	async function use(school: School, way: Way): Promise<void> {
		lift();
		await desk.deeds.keep((recipe) => withWay(recipe, school.key, way.key), `${school.label} ${way.title}`);
	}

	function lacking(way: Way): string {
		return `needs ${way.lacks.map((symbol) => shelf.name(symbol).toLowerCase()).join(' and ')}`;
	}
</script>

{#each schools as school (school.key)}
	<section>
		<h2>{school.label}</h2>
		<ul>
			{#each school.ways as way (way.key)}
				{@const current = way.key === school.way}
				<li class:current>
					<div class="way">
						<span>
							{#if current}<span class="tick" aria-label="this job’s way">✓</span>{/if}{way.title}
						</span>
						{#if !current}
							<span class="deeds">
								<button
									class="button small"
									aria-pressed={isLaid(school, way)}
									disabled={way.lacks.length > 0}
									aria-label={`Lay under: ${school.label} ${way.title}`}
									onclick={() => lay(school, way)}>{isLaid(school, way) ? 'Take away' : 'Lay under'}</button
								>
								<button
									class="button small"
									disabled={desk.deeds.busy || way.lacks.length > 0}
									aria-label={`Use: ${school.label} ${way.title}`}
									onclick={() => use(school, way)}>Use</button
								>
							</span>
						{/if}
					</div>
					<p class="soft">
						{spoken(way.reason)}{#if way.lacks.length}
							<strong>It {lacking(way)}.</strong>{/if}
					</p>
					{#if laid && isLaid(school, way) && (laid.trial.problem || laid.trial.preview)}
						<div class="difference" role="status">
							{#if laid.trial.problem}
								<p class="note">{spoken(laid.trial.problem.message)} {spoken(laid.trial.problem.fix)}</p>
							{:else if moved.length}
								<p class="soft">Drawn under, in pencil. The lines lie apart by at most:</p>
								<ol>
									{#each moved as move (move.piece + move.lineage)}
										<li onpointerenter={() => ondraws([move.lineage])} onpointerleave={() => ondraws([])}>
											<span>{lineName(move.lineage)}</span>
											<span class="figures">{shown(move.distance)}</span>
										</li>
									{/each}
								</ol>
							{:else}
								<p class="soft">No line moves by it on this body.</p>
							{/if}
						</div>
					{/if}
				</li>
			{/each}
		</ul>
	</section>
{/each}

<style>
	h2 {
		font-size: 1.05rem;
		margin: 0.7rem 0.3rem 0.1rem;
	}
	ul > li {
		padding: 0.35rem 0.4rem;
		border-bottom: 1px solid var(--rule);
		border-left: 3px solid transparent;
	}
	.current {
		border-left-color: var(--chalk);
		font-weight: 600;
	}
	.way {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 0.6rem;
	}
	.deeds {
		display: flex;
		gap: 0.3rem;
		flex-shrink: 0;
	}
	.tick {
		color: var(--chalk);
		margin-right: 0.4rem;
	}
	.soft {
		font-weight: 400;
		margin: 0.1rem 0 0;
	}
	.difference ol li {
		display: flex;
		justify-content: space-between;
		padding: 0.15rem 0.3rem;
		border-bottom: 1px dotted var(--rule);
	}
	.difference ol li:hover {
		background: var(--chalk-soft);
	}
</style>
