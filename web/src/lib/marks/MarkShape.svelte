<!-- A mark as the pencil makes it: a cross, a dash, a dot, a notch or a slash, about the origin. -->
<script lang="ts">
	interface Props {
		kind: string;
		/** How far it reaches, cm. */
		r: number;
	}
	let { kind, r }: Props = $props();
</script>

{#if kind === 'cross'}<path d="M{-r} {-r}L{r} {r}M{-r} {r}L{r} {-r}" />
{:else if kind === 'dash'}<path d="M{-r} 0L{r} 0" />
{:else if kind === 'dot'}<circle r={0.55 * r} />
{:else if kind === 'notch'}<path d="M0 {-r}L0 {r}M{-0.7 * r} {r}L{0.7 * r} {r}" />
{:else}<path d="M{-0.7 * r} {r}L{0.7 * r} {-r}" />{/if}

<style>
	path {
		stroke: var(--mark, var(--pencil-3));
		stroke-width: 2;
		fill: none;
		vector-effect: non-scaling-stroke;
	}
	circle {
		fill: var(--mark, var(--pencil-3));
	}
</style>
