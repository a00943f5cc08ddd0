<!-- The findings of a muslin, and the earlier ones that are asked about again. -->
<script lang="ts">
	import type { Finding, Outcome, Round } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { OUTCOMES, pencil } from '../../lib/words';

	import Photos from './Photos.svelte';

	interface Props {
		round: Round;
		editable: boolean;
		onreopen: (finding: Finding) => void;
	}
	let { round, editable, onreopen }: Props = $props();

	const desk = getDesk();
	const CHOICES = Object.keys(OUTCOMES) as Outcome[];

	function given(finding: Finding): Outcome | undefined {
		return finding.answers.find((a) => a.round === round.number)?.outcome;
	}

	/** Whether a remedy changed something under the style: that is of the wearer's body. */
	function ofBody(finding: Finding): boolean {
		const own = desk.trial.preview?.stages.filter((stage) => finding.steps.includes(stage.step.uid)) ?? [];
		return own.some((stage) => stage.section === 'fit');
	}

	async function say(finding: Finding, outcome: Outcome): Promise<void> {
		await desk.deeds.answer(round.number, finding, outcome, OUTCOMES[outcome]);
	}
</script>

{#if round.asks.length}
	<h3>Did it help?</h3>
	<ul>
		{#each round.asks as finding (finding.uid)}
			<li>
				<span class="lead" style:background={pencil(finding.round)}></span>
				<div>
					<span>{finding.seen}</span>
					<span class="soft">muslin {finding.round}: {finding.remedy_title || 'left as it was'}</span>
					<select
						class="field"
						aria-label="{finding.seen}: did it help?"
						value={given(finding) ?? ''}
						disabled={!editable || desk.deeds.busy}
						onchange={(e) => say(finding, e.currentTarget.value as Outcome)}
					>
						<option value="" disabled>not answered yet</option>
						{#each CHOICES as choice (choice)}<option value={choice}>{OUTCOMES[choice]}</option>{/each}
					</select>
					{#if finding.answers.some((a) => a.outcome === 'solved') && ofBody(finding)}
						<button
							class="button small"
							disabled={desk.deeds.busy}
							onclick={() => desk.deeds.keepFit(finding.round, finding)}
							>Keep with {desk.job?.wearer.name}</button
						>
					{/if}
					{#if finding.photos.length}<Photos {finding} editable={false} />{/if}
				</div>
			</li>
		{/each}
	</ul>
{/if}
{#if round.findings.length}
	<h3>Found on this muslin</h3>
	<ul>
		{#each round.findings as finding (finding.uid)}
			<li>
				<span class="lead" style:background={pencil(round.number)}></span>
				<div>
					<button class="seen" onclick={() => onreopen(finding)} disabled={!editable}>{finding.seen}</button>
					{#if finding.side !== 'both'}<span class="soft">{finding.side} half</span>{/if}
					{#if finding.words}<span class="said">“{finding.words}”</span>{/if}
					{#if finding.photos.length || editable}<Photos {finding} {editable} />{/if}
					{#if finding.remedy}
						<span class="soft">{finding.remedy_title}{finding.applied ? '' : ' (taken back)'}</span>
					{:else if finding.normal}
						<span class="soft">Normal for this cut: {finding.normal}</span>
					{:else if editable}
						<button class="button small" disabled={desk.deeds.busy} onclick={() => onreopen(finding)}
							>Change the paper</button
						>
					{:else}
						<span class="soft">left as it was</span>
					{/if}
				</div>
			</li>
		{/each}
	</ul>
{:else if editable}
	<p class="soft">Nothing found on it yet.</p>
{/if}

<style>
	h3 {
		font-size: 1rem;
		margin: 0.5rem 0 0.2rem;
	}
	li {
		display: flex;
		gap: 0.6rem;
		padding: 0.4rem 0;
		border-bottom: 1px solid var(--rule);
	}
	li > div {
		display: flex;
		flex-direction: column;
		gap: 0.15rem;
		flex: 1;
		align-items: flex-start;
	}
	.lead {
		flex: none;
		width: 0.75rem;
		height: 0.75rem;
		margin-top: 0.35rem;
		border-radius: 50%;
	}
	.seen {
		text-align: left;
		cursor: pointer;
	}
	.seen:disabled {
		color: inherit;
		cursor: default;
	}
	.said {
		font-family: 'Literata Variable', serif;
		font-style: italic;
	}
	select {
		min-height: 2rem;
	}
</style>
