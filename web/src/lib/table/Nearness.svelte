<script module lang="ts">
	/** How much nearer one step brings. */
	export const NEARER = 0.8;
</script>

<!-- Nearer, further away, all of it: the buttons beside what is looked at. -->
<script lang="ts">
	interface Props {
		/** What “All” shows. */
		all: string;
		onnearer: (factor: number) => void;
		onall: () => void;
	}
	let { all, onnearer, onall }: Props = $props();
</script>

<div class="tools">
	<button class="button small" onclick={() => onnearer(NEARER)} aria-label="Nearer" title="Nearer (+)"
		>+</button
	>
	<button
		class="button small"
		onclick={() => onnearer(1 / NEARER)}
		aria-label="Further away"
		title="Further away (−)">−</button
	>
	<button class="button small" onclick={onall} title="{all} (0)">All</button>
</div>

<style>
	.tools {
		position: absolute;
		right: 0.6rem;
		bottom: 0.6rem;
		display: flex;
		gap: 0.3rem;
	}
</style>
