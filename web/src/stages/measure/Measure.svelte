<!-- Measure, within a job: a new sheet stands beside the old; the job is drafted again from it, all its steps kept. -->
<script lang="ts">
	import { answered, api, type Sheet } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { navigate } from '../../router';
	import MeasureSheet from './MeasureSheet.svelte';

	const desk = getDesk();

	async function kept(sheet: Sheet): Promise<void> {
		const why = `drafted from sheet ${sheet.number}`;
		const done = await desk.deed(why, (job, version) =>
			answered(
				api.PUT('/api/jobs/{job_id}/recipe', {
					params: { path: { job_id: job.id }, header: version },
					body: { recipe: job.recipe, sheet: sheet.id, why },
				}),
			),
		);
		if (done) await navigate('/jobs/:job/draft', { params: { job: desk.job!.id } });
	}
</script>

{#if desk.job}
	{#key desk.job.sheet.id}
		<MeasureSheet
			wearer={desk.job.wearer.id}
			wearerName={desk.job.wearer.name}
			from={desk.job.sheet}
			keepWords="Keep as a new sheet and draft again"
			onkept={kept}
		/>
	{/key}
{/if}
