<!-- What was changed on the block, in one line: the recipe itself is read and edited where the garment is styled. -->
<script lang="ts">
	import { getDesk } from '../../lib/desk/context';
	import { p } from '../../router';

	const desk = getDesk();
	const stages = $derived(desk.trial.preview?.stages ?? []);
	const skipped = $derived(stages.filter((stage) => stage.failure).length);
</script>

{#if stages.length && desk.job}
	<p class="steps">
		<a href={p('/jobs/:job/style', { params: { job: desk.job.id } })}
			>{stages.length} {stages.length === 1 ? 'change' : 'changes'} to the block</a
		>{skipped ? `, ${skipped} skipped` : ''}
	</p>
{/if}

<style>
	.steps {
		margin: 0.8rem 0.3rem 0.2rem;
	}
</style>
