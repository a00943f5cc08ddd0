<!-- The form of the step that is worked, if one is. -->
<script lang="ts">
	import StepForm from './StepForm.svelte';
	import type { StepWork } from './stepWork.svelte';

	let { work }: { work: StepWork } = $props();
</script>

{#if work.editing && work.operation}
	<StepForm
		operation={work.operation}
		step={work.editing.step}
		stage={work.stage}
		isNew={work.editing.isNew}
		places={work.placeLines}
		waiting={work.waiting}
		onchange={work.attempt}
		onwait={(field) => (work.waiting = field)}
		online={work.setLine}
		onkeep={work.keep}
		onleave={work.leave}
	/>
{/if}
