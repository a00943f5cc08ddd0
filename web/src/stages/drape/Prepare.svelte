<!-- Before draping: what is draped, the tapes to put on the form, its lengths and widths, and the muslin to tear. -->
<script lang="ts">
	import type { Drape, Drapes, FormPanel, OnForm } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import { reading, shown, spoken } from '../../lib/units.svelte';
	import FormFigure from './FormFigure.svelte';
	import { nameFor } from './given';

	interface Props {
		drapes: Drapes;
		form: OnForm;
		onkeep: (form: OnForm, words: string) => void;
		/** How much muslin it comes to, as it is sold, cm. */
		bought: number;
		missing: string[];
	}
	let { drapes, form, onkeep, bought, missing }: Props = $props();

	const desk = getDesk();
	const drape = $derived(drapes.drapes.find((one) => one.key === form.drape));
	let at = $state(0);
	let title = $state('');
	const titles = $derived(form.panels.map((panel) => panel.title));

	function choose(next: Drape): void {
		const known = new Map(form.panels.map((panel) => [panel.key, panel]));
		const panels = next.panels.map((panel): FormPanel => {
			const { key, title, kind, hangs, bust } = panel;
			const measured = known.get(key);
			return {
				key,
				title,
				kind: kind as FormPanel['kind'],
				hangs: hangs as FormPanel['hangs'],
				bust,
				length: measured?.length ?? null,
				width: measured?.width ?? null,
				train: measured?.train ?? 0,
			};
		});
		onkeep({ ...form, drape: next.key, panels, done: [] }, `drape: ${next.title.toLowerCase()}`);
	}

	function set(key: string, change: Partial<FormPanel>, words: string): void {
		const panels = form.panels.map((panel) => (panel.key === key ? { ...panel, ...change } : panel));
		onkeep({ ...form, panels }, words);
	}

	function add(event: SubmitEvent): void {
		event.preventDefault();
		const key = nameFor(
			title,
			form.panels.map((panel) => panel.key),
		);
		const made: FormPanel = {
			key,
			title: title.trim(),
			kind: 'panel',
			hangs: 'balance',
			bust: true,
			length: null,
			width: null,
			train: 0,
		};
		onkeep({ ...form, panels: [...form.panels, made] }, `add the panel ${title.trim().toLowerCase()}`);
		title = '';
	}

	function where(key: string): { length: string; width: string } {
		const found = drape?.panels.find((panel) => panel.key === key);
		return { length: found?.length ?? 'at its longest', width: found?.width ?? 'at its widest' };
	}

	function done(key: string): void {
		const on = form.done.includes(key);
		onkeep(
			{ ...form, done: on ? form.done.filter((one) => one !== key) : [...form.done, key] },
			'tick it off',
		);
	}
</script>

<label class="what">
	<span>What is draped</span>
	<select
		class="field"
		value={form.drape}
		onchange={(e) => {
			const next = drapes.drapes.find((one) => one.key === e.currentTarget.value);
			if (next) choose(next);
		}}
	>
		{#if !form.drape}<option value="">Choose…</option>{/if}
		{#each drapes.drapes as one (one.key)}<option value={one.key}>{one.title}</option>{/each}
	</select>
</label>
{#if drape}
	<details open={form.done.length < drape.tape.length}>
		<summary>Tape on the form</summary>
		<ul>
			{#each drape.tape as line, i (line)}
				<li>
					<label>
						<input
							type="checkbox"
							checked={form.done.includes(`tape_${i + 1}`)}
							disabled={desk.deeds.busy}
							onchange={() => done(`tape_${i + 1}`)}
						/>
						<span>{spoken(line)}</span>
					</label>
				</li>
			{/each}
		</ul>
		<p class="soft">Then step back, and look at it from across the room.</p>
	</details>
	<h3>Measure the form</h3>
	{#if titles.length}<FormFigure {titles} {at} />{/if}
	{#each form.panels as panel, i (panel.key)}
		{@const says = where(panel.key)}
		<fieldset onfocusin={() => (at = i)}>
			<legend>{panel.title}</legend>
			<NumberField
				label="Length: {says.length}"
				value={panel.length ?? null}
				unit="cm"
				low={1}
				high={600}
				onvalue={(length) => set(panel.key, { length }, `${panel.title}: length ${shown(length)}`)}
				onempty={() => set(panel.key, { length: null }, `${panel.title}: no length`)}
			/>
			<NumberField
				label="Width: {says.width}"
				value={panel.width ?? null}
				unit="cm"
				low={1}
				high={600}
				onvalue={(width) => set(panel.key, { width }, `${panel.title}: width ${shown(width)}`)}
				onempty={() => set(panel.key, { width: null }, `${panel.title}: no width`)}
			/>
			<div class="more">
				<label>
					<span>block</span>
					<select
						class="field"
						value={panel.kind}
						onchange={(e) =>
							set(
								panel.key,
								{ kind: e.currentTarget.value as FormPanel['kind'] },
								`${panel.title}: ${e.currentTarget.value}`,
							)}
					>
						{#each Object.entries(drapes.allowances) as [kind, allowance] (kind)}
							<option value={kind}>{kind}, {shown(allowance)} each way</option>
						{/each}
					</select>
				</label>
				<NumberField
					label="train"
					value={panel.train}
					unit="cm"
					low={0}
					high={600}
					onvalue={(train) => set(panel.key, { train }, `${panel.title}: train ${shown(train)}`)}
				/>
			</div>
		</fieldset>
	{/each}
	{#if drape.key === 'free'}
		<form onsubmit={add}>
			<input
				class="field"
				bind:value={title}
				maxlength="60"
				aria-label="A panel to drape"
				placeholder="a panel"
			/>
			<button class="button small" disabled={!title.trim() || desk.deeds.busy}>Add</button>
		</form>
	{/if}
	<h3>The muslin</h3>
	<NumberField
		label="From selvedge to selvedge"
		value={form.muslin}
		unit="cm"
		low={40}
		high={320}
		onvalue={(muslin) => onkeep({ ...form, muslin }, `muslin ${shown(muslin)} wide`)}
	/>
	{#if bought}
		<p><strong class="figures">{shown(bought)}</strong> of muslin, as it is sold.</p>
		<p>
			Print the tear list:
			<a href={`/api/jobs/${desk.job!.id}/tear-list?paper=a4&unit=${reading.unit}`} download>A4</a> ·
			<a href={`/api/jobs/${desk.job!.id}/tear-list?paper=letter&unit=${reading.unit}`} download>Letter</a>
		</p>
	{/if}
	{#if missing.length}<p class="soft">Not measured yet: {missing.join(', ').toLowerCase()}.</p>{/if}
{:else}
	<p class="soft">
		From the form’s lengths and widths comes the list of blocks to tear, with the guide lines to draw on each.
		Is there a draped, wrapped or traced shape already? Go on to its marks.
	</p>
{/if}

<style>
	.what {
		display: flex;
		flex-direction: column;
		gap: 0.2rem;
	}
	details {
		margin: 0.6rem 0;
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
	li label {
		display: flex;
		gap: 0.5rem;
		padding: 0.18rem 0;
	}
	li input {
		flex: none;
		width: 1.1rem;
		height: 1.1rem;
		margin-top: 0.2rem;
	}
	h3 {
		margin: 0.8rem 0 0.3rem;
	}
	fieldset {
		margin: 0.4rem 0;
		padding: 0.3rem 0.6rem 0.5rem;
		border: 1px solid var(--rule);
		border-radius: var(--radius-base);
	}
	legend {
		font-weight: 600;
		padding: 0 0.3rem;
	}
	.more {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem 1rem;
		margin-top: 0.3rem;
		color: var(--ink-soft);
	}
	.more label {
		display: flex;
		align-items: center;
		gap: 0.4rem;
	}
	.more select {
		min-height: 2rem;
	}
	form {
		display: flex;
		gap: 0.4rem;
	}
	p {
		margin: 0.4rem 0;
	}
	p a {
		text-decoration: underline;
	}
</style>
