<!-- The recipe in the maker's words: each step switched off or on, or taken out; why one cannot act. -->
<script lang="ts">
	import { Switch } from '@skeletonlabs/skeleton-svelte';
	import { getDesk } from '../../lib/desk/context';
	import { shown, spoken } from '../../lib/units.svelte';

	const desk = getDesk();
	const stages = $derived(desk.preview?.stages ?? []);

	async function turn(uid: string, on: boolean, words: string): Promise<void> {
		await desk.keep(
			(recipe) => ({ ...recipe, steps: (recipe.steps ?? []).map((s) => (s.uid === uid ? { ...s, on } : s)) }),
			`${on ? 'On' : 'Off'}: ${words}`,
		);
	}
</script>

{#if stages.length}
	<h2>Changes to the block</h2>
	<ol>
		{#each stages as stage (stage.step.uid)}
			<li class:off={!stage.step.on}>
				<div class="line">
					<span>{spoken(stage.words)}</span>
					<Switch
						checked={stage.step.on}
						onCheckedChange={(e) => turn(stage.step.uid, e.checked, stage.words)}
						aria-label={`${stage.words}: acts`}
					>
						<Switch.Control><Switch.Thumb /></Switch.Control>
						<Switch.HiddenInput aria-label={`${stage.words}: acts`} />
					</Switch>
				</div>
				{#if stage.step.why}<p class="soft">{stage.step.why}</p>{/if}
				{#if stage.failure}
					<p class="note">Skipped: {spoken(stage.failure)} {spoken(stage.mend)}</p>
				{:else if stage.step.on && stage.sums.length}
					<p class="soft figures">
						{stage.sums
							.map(([what, cm]) => (what === 'edges cut' ? `${cm} ${what}` : `${what} ${shown(cm)}`))
							.join(' · ')}
					</p>
				{/if}
			</li>
		{/each}
	</ol>
{/if}

<style>
	h2 {
		font-size: 1.05rem;
		margin: 0.6rem 0.3rem 0.2rem;
	}
	ol {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		padding: 0.4rem 0.3rem;
		border-bottom: 1px solid var(--rule);
	}
	.off .line span {
		text-decoration: line-through;
		color: var(--ink-soft);
	}
	.line {
		display: flex;
		justify-content: space-between;
		gap: 0.6rem;
	}
	p {
		margin: 0.1rem 0 0;
	}
	.soft {
		color: var(--ink-soft);
		font-size: 0.92rem;
	}
</style>
