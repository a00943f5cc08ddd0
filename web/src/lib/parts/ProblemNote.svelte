<!-- What went wrong, what is safe, what to do. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Problem } from '../api/client';
	import { spoken } from '../units.svelte';

	let { problem, children }: { problem: Problem; children?: Snippet } = $props();
</script>

<div class="note wrong" role="alert">
	<p><strong>{spoken(problem.message)}</strong> {spoken(problem.fix)}</p>
	{#if children}<div class="deeds">{@render children()}</div>{/if}
</div>

<style>
	p {
		margin: 0;
	}
	.deeds {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		margin-top: 0.4rem;
	}
</style>
