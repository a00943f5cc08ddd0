<!-- The head of every page: the name, where one is, the unit, the evening light. -->
<script lang="ts">
	import { Moon, Sun } from '@lucide/svelte';
	import type { Snippet } from 'svelte';
	import { p } from '../../router';
	import { store } from '../store';
	import UnitSwitch from './UnitSwitch.svelte';

	let { children }: { children?: Snippet } = $props();

	let dim = $state(document.documentElement.dataset.mode === 'dark' || store.read('izett-dim') === 'yes');
	$effect(() => {
		document.documentElement.dataset.mode = dim ? 'dark' : 'light';
		store.write('izett-dim', dim ? 'yes' : 'no');
	});
</script>

<header>
	<a class="name" href={p('/')}>Izett</a>
	<div class="middle">{@render children?.()}</div>
	<UnitSwitch />
	<button
		class="button small"
		onclick={() => (dim = !dim)}
		aria-label={dim ? 'Day light' : 'Evening light'}
		title={dim ? 'Day light' : 'Evening light'}
	>
		{#if dim}<Sun size={18} />{:else}<Moon size={18} />{/if}
	</button>
</header>

<style>
	header {
		display: flex;
		align-items: center;
		gap: 1rem;
		padding: 0.4rem 1.1rem;
		border-bottom: 1px solid var(--rule);
		background: var(--paper);
	}
	.name {
		font-family: 'Literata Variable', serif;
		font-size: 1.5rem;
		font-weight: 600;
		color: var(--ink);
		text-decoration: none;
	}
	@media (max-width: 900px) {
		header {
			flex-wrap: wrap;
			gap: 0.3rem 0.7rem;
		}
	}
	.middle {
		flex: 1;
		min-width: 0;
	}
</style>
