<!-- What the plotter's pen has drawn of a plot so far, on its roll. -->
<script lang="ts">
	import type { Plot } from '../../lib/api/client';

	let { plot }: { plot: Plot } = $props();
	// A picture of a tenth of a second is as good as any, and is asked for once.
	const seconds = $derived(Math.ceil(plot.drawn * 10) / 10);
</script>

<div class="roll">
	<img
		src={`/api/plotter/plots/${plot.id}/picture?seconds=${seconds}`}
		alt={`${plot.name}: what the pen has drawn`}
	/>
</div>

<style>
	.roll {
		height: 100%;
		padding: 1rem;
		display: grid;
		place-items: center;
	}
	img {
		width: 100%;
		height: 100%;
		object-fit: contain;
	}
</style>
