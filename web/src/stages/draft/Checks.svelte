<!-- The checks: what does not hold first, then all that does, grouped under its claim. -->
<script lang="ts">
	import { getDesk } from '../../lib/desk/context';
	import { spoken } from '../../lib/units.svelte';

	let { ondraws }: { ondraws: (names: string[]) => void } = $props();

	const desk = getDesk();
	const checks = $derived(desk.preview?.checks ?? []);
	const odd = $derived(checks.filter((c) => c.verdict === 'fails' || c.verdict === 'warns'));
	const fine = $derived(checks.filter((c) => c.verdict === 'passes'));
	const MARKS: Record<string, string> = { fails: '✕', warns: '!', passes: '✓', not_applicable: '–' };
</script>

{#if odd.length === 0 && checks.length}
	<p class="all">Everything agrees: {fine.length} things were checked.</p>
{/if}
<ul>
	{#each [...odd, ...fine] as check, i (i)}
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<li
			class={check.verdict}
			tabindex="0"
			title={check.claim}
			onpointerenter={() => ondraws(check.where)}
			onpointerleave={() => ondraws([])}
			onfocus={() => ondraws(check.where)}
			onblur={() => ondraws([])}
		>
			<span class="sign" aria-label={check.verdict}>{MARKS[check.verdict]}</span>
			<span>
				{spoken(check.words)}
				{#if check.verdict === 'fails' || check.verdict === 'warns'}<em>{spoken(check.mend)}</em>{/if}
			</span>
		</li>
	{/each}
</ul>

<style>
	.all {
		padding: 0.6rem 0.3rem;
		color: var(--moss);
		font-weight: 600;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		display: flex;
		gap: 0.6rem;
		padding: 0.3rem;
		border-bottom: 1px solid var(--rule);
	}
	.sign {
		width: 1.2rem;
		text-align: center;
		font-weight: 700;
	}
	.passes .sign {
		color: var(--moss);
	}
	.warns .sign {
		color: var(--amber);
	}
	.fails .sign {
		color: var(--wax);
	}
	em {
		display: block;
		font-style: normal;
		color: var(--ink-soft);
	}
</style>
