<!-- Which lines are sewn together: as marked, whether they agree, what is eased; corrected by pointing at two lines. -->
<script lang="ts">
	import type { Given, GivenOut, GivenSeam, SeamEnd } from '../../lib/api/client';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import { shown } from '../../lib/units.svelte';
	import { withOpen, withSeam, type Laid } from './given';

	interface Props {
		given: Given;
		found: GivenOut;
		/** The first of two lines that are pointed at; null while none is, undefined while nothing is pointed at. */
		first: SeamEnd | null | undefined;
		onpoint: (on: boolean) => void;
		/** Told of a line that was chosen from the list, as if it had been pointed at. */
		onend: (end: SeamEnd) => void;
		ontry: (given: Given) => void;
		onlight: (lineages: string[]) => void;
		/** The seam at which two panels are laid together, and at which of its ends. */
		laid: Laid | null;
		onlay: (laid: Laid | null) => void;
	}
	let { given, found, first, onpoint, onend, ontry, onlight, laid, onlay }: Props = $props();

	function called(end: SeamEnd): string {
		const panel = found.panels.find((one) => one.name === end.panel);
		return `${(panel?.title ?? end.panel).toLowerCase()} ${end.line.replaceAll('_', ' ')}`;
	}
	function lineages(seam: GivenSeam): string[] {
		return seam.sides.map((end) => `${end.panel}.${end.line}`);
	}
	function said(seam: GivenSeam, ease: number): void {
		ontry(withSeam(given, { first: seam.sides[0], second: seam.sides[1], ease }));
	}
</script>

<ul>
	{#each found.seams as seam (lineages(seam).join())}
		{@const [one, other] = seam.sides}
		<li
			class:odd={!seam.trued}
			onpointerenter={() => onlight(lineages(seam))}
			onpointerleave={() => onlight([])}
		>
			<div class="names">
				<span>{called(one)} <span class="soft">with</span> {called(other)}</span>
				<span class="soft">{seam.proposed ? 'proposed' : 'said'}</span>
			</div>
			<div class="figures">
				{shown(seam.before[0])} and {shown(seam.before[1])} as marked,
				{#if seam.trued}<span class="good">made to agree</span>
				{:else}<strong>{shown(Math.abs(seam.differs))} apart: left as marked</strong>{/if}
			</div>
			<div class="deeds">
				<NumberField
					label="eased into the second"
					value={seam.ease}
					unit="cm"
					low={-10}
					high={10}
					onvalue={(ease) => said(seam, ease)}
				/>
				{#if !seam.trued}
					<button
						class="button small"
						onclick={() => said(seam, Math.round((seam.before[1] - seam.before[0]) * 100) / 100)}
						>Ease it in over the bust</button
					>
				{/if}
				{#each ['start', 'end'] as const as end (end)}
					{@const on = laid?.seam === seam.name && laid.end === end}
					<button
						class="button small"
						class:main={on}
						aria-pressed={on}
						onclick={() => onlay(on ? null : { seam: seam.name, end })}
						>{end === 'start' ? 'Lay together' : 'at the other end'}</button
					>
				{/each}
				<button class="button small" onclick={() => ontry(withOpen(given, seam.sides))}>Not a seam</button>
			</div>
		</li>
	{/each}
	{#if found.cap}
		{@const over = found.cap.cap - found.cap.armhole}
		<li class:odd={!found.cap.fits}>
			<div class="names"><span>armhole <span class="soft">with</span> cap</span></div>
			<div class="figures">
				{shown(found.cap.armhole)} and {shown(found.cap.cap)},
				{#if found.cap.fits}<span class="good"
						>{over < 0.05 ? 'equally long' : `${shown(over)} eased in over the cap`}</span
					>
				{:else}<strong
						>{shown(Math.abs(over))} {over < 0 ? 'too short' : 'too long'}: re-cap it, in Style</strong
					>{/if}
			</div>
		</li>
	{/if}
</ul>
{#if found.free.length}
	<p class="soft">Sewn to nothing: {found.free.map(called).join(', ')}.</p>
{/if}
{#if first === undefined}
	<button class="button small" onclick={() => onpoint(true)}>Point at two lines that are sewn together</button
	>
{:else}
	<p role="status">
		{first ? `Now the line that ${called(first)} is sewn to.` : 'Point at the first line on the table.'}
		<button class="button small" onclick={() => onpoint(false)}>Leave it</button>
	</p>
	<div class="deeds" role="group" aria-label="Lines that can be sewn">
		{#each found.free.filter((end) => end.panel !== first?.panel || end.line !== first.line) as end (end.panel + end.line)}
			<button class="button small" onclick={() => onend(end)}>{called(end)}</button>
		{/each}
	</div>
{/if}

<style>
	li {
		padding: 0.35rem 0.4rem;
		border-bottom: 1px solid var(--rule);
	}
	li:hover {
		background: var(--chalk-soft);
	}
	.odd {
		border-left: 3px solid var(--wax);
	}
	.names {
		display: flex;
		justify-content: space-between;
		gap: 0.6rem;
	}
	.good {
		color: var(--moss);
	}
	.deeds {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.4rem 0.8rem;
		margin-top: 0.2rem;
	}
</style>
