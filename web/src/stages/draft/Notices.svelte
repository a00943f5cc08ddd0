<!-- What the draft has to tell the maker. -->
<script lang="ts">
	import { getDesk } from '../../lib/desk/context';
	import { spoken } from '../../lib/units.svelte';

	const desk = getDesk();
</script>

{#each desk.trial.preview?.notices ?? [] as notice (notice.code + notice.message)}
	<p class="note">{spoken(notice.message)}</p>
{/each}

<style>
	.note {
		margin: 0.4rem 0;
	}
</style>
