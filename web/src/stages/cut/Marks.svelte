<!-- What is marked on a line that is pointed at: notches, buttons, bones, places of one's own; more of them, or fewer. -->
<script lang="ts">
	import { Trash2 } from '@lucide/svelte';
	import { api, type Offer, type Stage } from '../../lib/api/client';
	import { Loaded } from '../../lib/api/loaded.svelte';
	import { getDesk } from '../../lib/desk/context';
	import { bare } from '../../lib/desk/names.svelte';
	import { withoutStep } from '../../lib/desk/recipe';
	import type { StepWork } from '../../lib/step/stepWork.svelte';
	import type { Subject } from '../../lib/table/picking';
	import { plain, reading, spoken } from '../../lib/units.svelte';
	import { isMark, lineOfMark } from './finishing';

	let { subject, work }: { subject: Subject; work: StepWork } = $props();
	const desk = getDesk();

	const asked = new Loaded<Offer[]>();
	$effect(() => {
		if (!desk.job) return;
		const { id, sheet, recipe } = desk.job;
		const body = { sheet: sheet.id, recipe, job: id, unit: reading.unit, ...subject };
		void asked.load(api.POST('/api/offers', { body }));
	});
	const offers = $derived((asked.value ?? []).filter((offer) => isMark(offer.kind)));
	const marks = $derived(
		(desk.trial.preview?.stages ?? []).filter(
			(stage) => isMark(stage.step.kind) && bare(lineOfMark(stage.step.params)) === bare(subject.name),
		),
	);

	async function takeOff(stage: Stage): Promise<void> {
		await desk.deeds.keep(
			(recipe) => withoutStep(recipe, stage.step.uid),
			`Taken off: ${plain(stage.words)}`,
		);
	}
</script>

{#if marks.length || offers.length}
	<h3>Marked on it</h3>
	<ul>
		{#each marks as stage (stage.step.uid)}
			<li>
				<button class="words" title="Change it" onclick={() => work.open(stage.step.uid)}>
					{spoken(stage.words)}
				</button>
				<button
					class="icon"
					disabled={desk.deeds.busy}
					onclick={() => void takeOff(stage)}
					aria-label={`Take off: ${spoken(stage.words)}`}
					title="Take it off"><Trash2 size={15} /></button
				>
			</li>
		{/each}
	</ul>
	<p class="more">
		{#each offers as offer, i (i)}
			<button class="button small" disabled={desk.deeds.busy} onclick={() => work.choose(offer)}>
				{spoken(offer.words)}
			</button>
		{/each}
	</p>
{/if}

<style>
	h3 {
		font-size: 0.95rem;
		margin: 0.3rem 0 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 0.5rem;
	}
	.words {
		text-align: left;
		cursor: pointer;
	}
	.words:hover {
		background: var(--chalk-soft);
	}
	.icon {
		cursor: pointer;
	}
	.more {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem;
		margin: 0.2rem 0;
	}
</style>
