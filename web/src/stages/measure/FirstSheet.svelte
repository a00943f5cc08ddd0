<!-- A wearer's first sheet, from which the ticket's job is drafted at once. -->
<script lang="ts">
	import { api, type Job, type Recipe, type Wearer } from '../../lib/api/client';
	import { Loaded } from '../../lib/api/loaded.svelte';
	import { GIVEN, shelf } from '../../lib/desk/catalogue.svelte';
	import { Deeds } from '../../lib/desk/deeds.svelte';
	import Head from '../../lib/parts/Head.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { navigate, p, route } from '../../router';
	import MeasureStage from './MeasureStage.svelte';

	const id = (route.params as { wearer?: string }).wearer ?? '';
	const garment = String(route.search.garment ?? 'Fitted bodice');
	const due = String(route.search.due ?? '');
	const key = String(route.search.set ?? '');
	const set = $derived(shelf.beginning(key));
	const person = new Loaded<Wearer>();
	const wearer = $derived(person.value);
	const opened = new Loaded<Job>();

	void person.load(api.GET('/api/wearers/{wearer_id}', { params: { path: { wearer_id: id } } }));

	let chosen = $state<Record<string, number>>({});

	function allow(allowance: string, cm: number | null): void {
		if (cm === null) delete chosen[allowance];
		else chosen[allowance] = cm;
	}

	async function kept(): Promise<void> {
		if (!set) return;
		const { blocks, fit, cloth } = set;
		const job = await opened.load(
			api.POST('/api/jobs', { body: { wearer: id, garment, due: due || null, blocks, fit, cloth } }),
		);
		if (!job) return;
		if (Object.keys(chosen).length) {
			const deeds = new Deeds(() => {});
			await deeds.open(job.id);
			const madeUp = (recipe: Recipe): Recipe => ({
				...recipe,
				overrides: { ...recipe.overrides, ...chosen },
			});
			await deeds.keep(madeUp, 'made up for measuring alone');
		}
		await navigate(key === GIVEN ? '/jobs/:job/drape' : '/jobs/:job/draft', { params: { job: job.id } });
	}
</script>

<svelte:head><title>Measure · Izett</title></svelte:head>
<div class="page">
	<Head
		>{#if wearer}<h1>Measuring {wearer.name}</h1>{/if}</Head
	>
	<main>
		{#if opened.problem}<ProblemNote problem={opened.problem} />{/if}
		{#if person.problem}
			<ProblemNote problem={person.problem}
				><a class="button small" href={p('/')}>Back to the bench</a></ProblemNote
			>
		{:else if wearer && set}
			<MeasureStage
				wearer={id}
				wearerName={wearer.name}
				from={wearer.newest ?? null}
				underWay={wearer.under_way ?? null}
				job={null}
				current={null}
				blocks={set.blocks}
				keepWords={key === GIVEN ? 'Keep the sheet' : 'Keep the sheet and draft'}
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
