<!-- The plan of a round: in which order its changes are worked, which go together, and which are at odds. -->
<script lang="ts">
	import { api, type Plan, type Round } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { spoken } from '../../lib/units.svelte';

	let { round }: { round: Round } = $props();

	const desk = getDesk();
	const plan = desk.reads<Plan>();
	$effect(() => {
		const job = desk.job;
		if (!job) return;
		void plan.load(
			api.GET('/api/jobs/{job_id}/rounds/{number}/plan', {
				params: { path: { job_id: job.id, number: round.number } },
			}),
		);
	});
	const made = $derived(plan.value);
	const named = $derived(new Map(round.findings.map((one) => [one.uid, one.seen])));
</script>

{#if made && made.order.length}
	<h3>The plan of this round</h3>
	<ol>
		{#each made.order as one (one.finding)}
			<li>
				{one.seen}
				<span class="soft">{one.title || `nothing to do here: ${spoken(one.refused)}`}</span>
			</li>
		{/each}
	</ol>
	{#each made.together as uids (uids.join())}
		<p class="soft">One change for both: {uids.map((uid) => named.get(uid)?.toLowerCase()).join('; ')}.</p>
	{/each}
	{#each made.conflicts as one (one.findings.join() + one.words)}
		<p class="odd"><strong>At odds.</strong> {spoken(one.words)}</p>
	{/each}
	{#if made.odd.length}
		<p class="odd">All together, no longer agrees: {made.odd.map((words) => spoken(words)).join('. ')}.</p>
	{/if}
{/if}

<style>
	h3 {
		font-size: 1rem;
		margin: 0.8rem 0 0.2rem;
	}
	ol {
		margin: 0;
		padding-left: 1.3rem;
		list-style: decimal;
	}
	.soft {
		display: block;
	}
	p {
		margin: 0.3rem 0;
	}
	.odd {
		padding-left: 0.5rem;
		border-left: 3px solid var(--chalk);
	}
</style>
