<!-- Before it goes on: what to see to, what this muslin should answer, how it is sewn, the pins; and its sheet of paper. -->
<script lang="ts">
	import type { Muslin, Round } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import { reading, shown, spoken } from '../../lib/units.svelte';
	import Pins from './Pins.svelte';

	interface Props {
		muslin: Muslin;
		/** The open muslin; none where it is not cut yet. */
		round: Round | null;
	}
	let { muslin, round }: Props = $props();

	const desk = getDesk();
	const done = $derived(new Set(round?.prepared ?? []));
	const left = $derived(muslin.items.filter((item) => !done.has(item.key)).length);

	function tick(key: string): void {
		const prepared = done.has(key) ? round!.prepared.filter((one) => one !== key) : [...round!.prepared, key];
		void desk.deeds.seeTo(round!.number, { prepared }, 'tick it off');
	}

	function sheet(paper: string): string {
		return `/api/jobs/${desk.job!.id}/fitting-sheet?paper=${paper}&unit=${reading.unit}`;
	}
</script>

<details open={round !== null && left > 0 && !round.findings.length}>
	<summary>
		Before it goes on
		<span class="soft">{round ? (left ? `${left} to see to` : 'all seen to') : 'what to see to'}</span>
	</summary>
	<ul>
		{#each muslin.items as item (item.key)}
			<li>
				<label>
					{#if round}
						<input
							type="checkbox"
							checked={done.has(item.key)}
							disabled={desk.deeds.busy}
							onchange={() => tick(item.key)}
						/>
					{/if}
					<span><strong>{item.title}.</strong> <span class="soft">{spoken(item.says)}</span></span>
				</label>
			</li>
		{/each}
	</ul>
	<p class="soft">
		Sewn as: {muslin.purpose.toLowerCase()}. {muslin.sewn
			.map((one) => `${one.role.replaceAll('_', ' ')} ${shown(one.allowance)}`)
			.join(', ')}.
	</p>
	{#if muslin.estimated.length || muslin.changed.length}
		<h4>What it should answer</h4>
		<ul class="asks">
			{#each muslin.changed as why (why)}<li>{spoken(why)}: is it right now?</li>{/each}
			{#each muslin.estimated as label (label)}<li>{label}: estimated, never taken</li>{/each}
		</ul>
	{/if}
	{#if round}<Pins {round} which="in" />{/if}
	<p>
		Print the fitting sheet:
		<a href={sheet('a4')} download>A4</a> ·
		<a href={sheet('letter')} download>Letter</a>
	</p>
</details>

<style>
	details a {
		text-decoration: underline;
	}
	details {
		margin: 0.5rem 0;
	}
	summary {
		cursor: pointer;
		font-weight: 600;
	}
	ul {
		list-style: none;
		margin: 0.3rem 0;
		padding: 0;
	}
	.asks {
		list-style: disc;
		padding-left: 1.1rem;
		font-size: 0.94rem;
	}
	label {
		display: flex;
		gap: 0.5rem;
		padding: 0.18rem 0;
	}
	input {
		flex: none;
		width: 1.1rem;
		height: 1.1rem;
		margin-top: 0.2rem;
	}
	h4 {
		margin: 0.5rem 0 0;
		font-weight: 600;
	}
	p {
		margin: 0.4rem 0;
	}
	.soft {
		font-weight: 400;
	}
</style>
