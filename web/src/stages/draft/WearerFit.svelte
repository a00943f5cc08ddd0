<!-- The wearer's fit: what proved right on her in earlier fittings, with its story, offered for this garment too. -->
<script lang="ts">
	import { api, type KeptFit } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { spoken } from '../../lib/units.svelte';

	const desk = getDesk();
	const kept = desk.reads<KeptFit[]>();
	const load = (): Promise<unknown> =>
		kept.load(api.GET('/api/jobs/{job_id}/wearer-fit', { params: { path: { job_id: desk.job!.id } } }));
	$effect(() => {
		void desk.job?.version;
		void load();
	});
	const steps = $derived(kept.value ?? []);
	const free = $derived(steps.filter((step) => !step.here && !step.refused));
	const name = $derived(desk.job?.wearer.name ?? '');

	async function confirm(step: KeptFit): Promise<void> {
		const { job } = desk;
		await desk.ask(
			api.POST('/api/wearers/{wearer_id}/fit/{uid}/confirm', {
				params: { path: { wearer_id: job!.wearer.id, uid: step.uid } },
				body: { sheet: job!.wearer.newest!.number },
			}),
		);
		await load();
	}

	async function forget(step: KeptFit): Promise<void> {
		await desk.ask(
			api.DELETE('/api/wearers/{wearer_id}/fit/{uid}', {
				params: { path: { wearer_id: desk.job!.wearer.id, uid: step.uid } },
			}),
		);
		await load();
	}
</script>

{#if steps.length}
	<section aria-label="The wearer’s fit">
		<h3>{name}’s fit, from earlier fittings</h3>
		<ul>
			{#each steps as step (step.uid)}
				<li>
					<span>
						{spoken(step.words)}{step.half === 'both' ? '' : `, ${step.half} half`}
						<em>{step.story}</em>
						{#if step.anew}<em class="odd"
								>Measured again since (it proved right with sheet {step.proven_on}). Does it still hold?</em
							>{/if}
						{#if step.refused}<em>Not for this garment: {spoken(step.refused)}</em>{/if}
					</span>
					<span class="deeds">
						{#if step.here}<em>in this garment</em>{:else if !step.refused}
							<button
								class="button small"
								disabled={desk.deeds.busy}
								onclick={() => desk.deeds.takeFit([step.uid])}>Take it over</button
							>
						{/if}
						{#if step.anew}<button class="button small" onclick={() => confirm(step)}>It still holds</button
							>{/if}
						<button
							class="button small"
							onclick={() => forget(step)}
							aria-label="Forget: {spoken(step.words)}">Forget</button
						>
					</span>
				</li>
			{/each}
		</ul>
		{#if free.length > 1}
			<button
				class="button small main"
				disabled={desk.deeds.busy}
				onclick={() => desk.deeds.takeFit(free.map((step) => step.uid))}>Take all {free.length} over</button
			>
		{/if}
	</section>
{/if}

<style>
	h3 {
		font-size: 1rem;
		margin: 0.6rem 0 0.2rem;
	}
	ul {
		list-style: none;
		margin: 0 0 0.4rem;
		padding: 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 0.6rem;
		padding: 0.35rem 0.2rem;
		border-bottom: 1px solid var(--rule);
	}
	em {
		display: block;
		font-style: normal;
		font-size: 0.92rem;
		color: var(--ink-soft);
	}
	.odd {
		color: var(--amber);
	}
	.deeds {
		display: flex;
		flex-direction: column;
		gap: 0.3rem;
		align-items: flex-end;
		flex: none;
	}
</style>
