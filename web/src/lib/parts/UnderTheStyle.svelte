<!-- One key away: the block as the fitting left it, under the style, or the styled garment. -->
<script lang="ts">
	import { getDesk } from '../desk/context';

	const desk = getDesk();
	const styled = $derived(desk.trial.recipe?.steps.some((step) => step.on) ?? false);

	function turn(): void {
		desk.trial.look({ source: !desk.trial.looked.source });
	}

	function key(event: KeyboardEvent): void {
		const target = event.target as HTMLElement;
		if (
			event.ctrlKey ||
			event.metaKey ||
			event.altKey ||
			target.closest('input, textarea, select, [role="dialog"]')
		)
			return;
		if (styled && event.key.toLowerCase() === 'u') turn();
	}
</script>

<svelte:window onkeydown={key} />
{#if styled}
	<button
		class="button small"
		onclick={turn}
		aria-pressed={desk.trial.looked.source}
		title="Under the style, or as styled (U)"
	>
		{desk.trial.looked.source ? 'Show it styled' : 'Show the block under the style'}
	</button>
{/if}

<style>
	button {
		position: absolute;
		top: 2.1rem;
		right: 0.6rem;
	}
</style>
