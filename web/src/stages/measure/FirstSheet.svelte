<!-- A wearer's first sheet, from which the ticket's job is drafted at once. -->
<script lang="ts">
	import { answered, api, asProblem, type Problem, type Wearer } from '../../lib/api/client';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import Head from '../../lib/parts/Head.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { navigate, p, route } from '../../router';
	import MeasureStage from './MeasureStage.svelte';

	const id = (route.params as { wearer?: string }).wearer ?? '';
	const garment = String(route.search.garment ?? 'Fitted bodice');
	const due = String(route.search.due ?? '');
	const set = $derived(shelf.set(String(route.search.set ?? '')));
	let wearer = $state<Wearer | null>(null);
	let problem = $state<Problem | null>(null);

	async function load(): Promise<void> {
		try {
			wearer = await answered(api.GET('/api/wearers/{wearer_id}', { params: { path: { wearer_id: id } } }));
		} catch (error) {
			problem = asProblem(error);
		}
	}
	void load();

	let chosen = $state<Record<string, number>>({});

	function allow(allowance: string, cm: number | null): void {
		if (cm === null) delete chosen[allowance];
		else chosen[allowance] = cm;
	}

	async function kept(): Promise<void> {
		if (!set) return;
		const { blocks, fit, cloth } = set;
		let job = await answered(
			api.POST('/api/jobs', { body: { wearer: id, garment, due: due || null, blocks, fit, cloth } }),
		);
		if (Object.keys(chosen).length) {
			job = await answered(
				api.PUT('/api/jobs/{job_id}/recipe', {
					params: { path: { job_id: job.id }, header: { 'If-Match': `"${job.version}"` } },
					body: {
						recipe: { ...job.recipe, overrides: { ...job.recipe.overrides, ...chosen } },
						why: 'made up for measuring alone',
					},
				}),
			);
		}
		await navigate('/jobs/:job/draft', { params: { job: job.id } });
	}
</script>

<svelte:head><title>Measure · Izett</title></svelte:head>
<div class="page">
	<Head
		>{#if wearer}<h1>Measuring {wearer.name}</h1>{/if}</Head
	>
	<main>
		{#if problem}
			<ProblemNote {problem}><a class="button small" href={p('/')}>Back to the bench</a></ProblemNote>
		{:else if wearer && set}
			<MeasureStage
				wearer={id}
				wearerName={wearer.name}
				from={wearer.newest ?? null}
				underWay={wearer.under_way ?? null}
				job={null}
				current={null}
				blocks={set.blocks}
				keepWords="Keep the sheet and draft"
				{chosen}
				onallow={allow}
				onkept={kept}
			/>
		{/if}
	</main>
</div>

<style>
	.page {
		height: 100%;
		display: flex;
		flex-direction: column;
	}
	main {
		flex: 1;
		min-height: 0;
	}
	h1 {
		font-size: 1.15rem;
		margin: 0;
	}
</style>
