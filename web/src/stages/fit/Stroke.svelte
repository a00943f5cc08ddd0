<!-- How a line is drawn on the table: solid for what lies on top, dashed in its own pencil for what lies under it. -->
<script lang="ts">
	let { pencil }: { pencil?: string } = $props();
</script>

<i class:dashed={pencil} style:border-color={pencil}></i>

<style>
	i {
		display: inline-block;
		width: 1.8rem;
		vertical-align: middle;
		border-top: 2px solid var(--ink);
	}
	.dashed {
		border-top-style: dashed;
	}
</style>
