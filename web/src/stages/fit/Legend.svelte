<!-- Which line is which: solid on top, each one under it in its own pencil. -->
<script lang="ts">
	import Stroke from './Stroke.svelte';

	interface Props {
		top: string;
		under: { title: string; pencil: string }[];
	}
	let { top, under }: Props = $props();
</script>

<div class="legend">
	<span><Stroke /> {top}</span>
	{#each under as one (one.title)}
		<span><Stroke pencil={one.pencil} /> {one.title}</span>
	{/each}
</div>

<style>
	.legend {
		position: absolute;
		top: 2.1rem;
		right: 0.6rem;
		display: flex;
		flex-direction: column;
		max-width: 60%;
		padding: 0.2rem 0.7rem;
		font-size: 0.92rem;
		background: var(--paper);
		border: 1px solid var(--rule);
		border-radius: var(--radius-base);
	}
</style>
