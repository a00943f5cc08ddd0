<!-- Measure, within a job: a new sheet stands beside the old; the job is drafted again from it, all its steps kept. -->
<script lang="ts">
	import type { Sheet } from '../../lib/api/client';
	import { blocksOf, withValue } from '../../lib/desk/recipe';
	import { getDesk } from '../../lib/desk/context';
	import { shown } from '../../lib/units.svelte';
	import { lineName } from '../../lib/words';
	import { navigate } from '../../router';
	import MeasureStage from './MeasureStage.svelte';

	const desk = getDesk();

	async function kept(sheet: Sheet): Promise<void> {
		if (await desk.deeds.draftFrom(sheet))
			await navigate('/jobs/:job/draft', { params: { job: desk.job!.id } });
	}

	async function allow(allowance: string, cm: number | null): Promise<void> {
		const words = lineName(allowance);
		await desk.deeds.keep(
			(recipe) => withValue(recipe, allowance, cm),
			cm === null ? `${words} taken out` : `${words} of ${shown(cm)}, since the measures were taken alone`,
		);
	}
</script>

{#if desk.job}
	{@const job = desk.job}
	{#key `${job.id} ${job.sheet.id}`}
		<MeasureStage
			wearer={job.wearer.id}
			wearerName={job.wearer.name}
			from={job.sheet}
			underWay={job.wearer.under_way ?? null}
			job={job.id}
			current={job.sheet}
			blocks={blocksOf(job.recipe)}
			keepWords="Keep as a new sheet and draft again"
			chosen={job.recipe.overrides ?? {}}
			onallow={(allowance, cm) => void allow(allowance, cm)}
			onkept={kept}
		/>
	{/key}
{/if}
