<!-- The shape of a stage: the table, what is wrong laid over it, and a panel beside it (below it on a narrow screen). -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Problem } from '../api/client';
	import ProblemNote from './ProblemNote.svelte';

	interface Props {
		table: Snippet;
		panel: Snippet;
		problem: Problem | null;
		/** What can be done about the problem. */
		fixing?: Snippet;
		/** Whether the panel needs more room than usual: it holds a table to type in. */
		wide?: boolean;
	}
	let { table, panel, problem, fixing, wide = false }: Props = $props();
</script>

<div class="stage" class:wide>
	<div class="on-table">
		{@render table()}
		{#if problem}<div class="over"><ProblemNote {problem}>{@render fixing?.()}</ProblemNote></div>{/if}
	</div>
	<aside>{@render panel()}</aside>
</div>

<style>
	.stage {
		display: grid;
		grid-template-columns: 1fr 25rem;
		grid-template-rows: minmax(0, 1fr);
		height: 100%;
		min-height: 0;
	}
	.stage.wide {
		grid-template-columns: 1fr 33rem;
	}
	.on-table {
		position: relative;
		min-height: 20rem;
	}
	.over {
		position: absolute;
		inset: 3rem 2rem auto 3rem;
	}
	aside {
		display: flex;
		flex-direction: column;
		min-height: 0;
		overflow: auto;
		border-left: 1px solid var(--rule);
		padding: 0.8rem;
	}
	/* On a tablet held upright and at twice the size the page scrolls: the table first, the panel below it. */
	@media (max-width: 900px), (max-height: 520px) {
		.stage {
			display: block;
			height: auto;
		}
		.on-table {
			height: max(60vh, 22rem);
			min-height: 0;
		}
		aside {
			overflow: visible;
			border-left: none;
			border-top: 1px solid var(--rule);
		}
	}
</style>
