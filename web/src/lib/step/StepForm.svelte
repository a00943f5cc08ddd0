<!-- A step while it is worked: its fields, tried on the table at once; kept, or left as it was. -->
<script lang="ts">
	import {
		type Field,
		type Half,
		type Operation,
		type PlaceLine,
		type Section,
		type Stage,
		type Step,
	} from '../api/client';
	import { getDesk } from '../desk/context';
	import type { PlaceParam as Place } from './places.svelte';
	import { openedFirst } from '../parts/opened';
	import { subjects, type Subject } from '../table/picking';
	import { shown, spoken } from '../units.svelte';
	import { lineName } from '../words';
	import AmountField from './AmountField.svelte';
	import PlaceField from './PlaceField.svelte';

	interface Props {
		operation: Operation;
		step: Step;
		stage: Stage | undefined;
		isNew: boolean;
		/** The lines that its places lie on, by the name of the field. */
		places: Record<string, PlaceLine>;
		/** The field that waits for a thing to be pointed at on the table. */
		waiting: string | null;
		onchange: (step: Step) => void;
		onwait: (field: string | null) => void;
		/** Told the line that was chosen for a field without a pointer. */
		online: (field: string, subject: Subject) => void;
		onkeep: () => void;
		onleave: () => void;
	}
	let { operation, step, stage, isNew, places, waiting, onchange, onwait, online, onkeep, onleave }: Props =
		$props();

	const desk = getDesk();
	const own = $props.id();

	function value(field: Field): unknown {
		return step.params[field.name] ?? field.default;
	}

	function set(name: string, entered: unknown): void {
		onchange({ ...step, params: { ...step.params, [name]: entered } });
	}

	/** What its kind asks for: a tie has no cloth's width, a godet no circle. */
	const fields = $derived(
		operation.fields.filter((field) => !field.only.length || field.only.includes(String(kind()))),
	);

	function kind(): unknown {
		return step.params.kind ?? operation.fields.find((field) => field.name === 'kind')?.default;
	}

	/** What a field is for this kind of the step: the width of a godet is the depth of a flounce. */
	function called(field: Field): string {
		return field.called[String(kind())] ?? field.meaning;
	}

	/** What a field that refers to something can be set to. */
	function choices(field: Field): { value: string; label: string }[] {
		const pieces = desk.trial.pieces;
		const named = (name: string): { value: string; label: string } => ({
			value: name,
			label: lineName(name),
		});
		if (field.kind === 'dart') return pieces.flatMap((p) => p.darts.map((d) => named(d.name)));
		if (field.kind === 'darts')
			return [...new Set(pieces.flatMap((p) => p.darts.map((d) => `${p.part}.${d.family}`)))].map((name) => ({
				value: name,
				label: `${lineName(name)} darts`,
			}));
		if (field.kind === 'seam') return (desk.trial.preview?.seams ?? []).map((seam) => named(seam.name));
		if (field.kind === 'piece') return pieces.map((p) => ({ value: p.name, label: p.title }));
		return field.choices.map((choice) => ({ value: choice, label: lineName(choice) }));
	}

	/** The form is seen, and what was clicked to open it hands the focus on to it. */
	function inSight(form: HTMLFormElement): void {
		form.scrollIntoView({ block: 'nearest' });
		if (document.activeElement === document.body) form.querySelector<HTMLElement>('input, select')?.focus();
	}

	const SELECTS = new Set(['choice', 'dart', 'darts', 'seam', 'piece']);
	const NUMBERS = new Set(['length', 'number', 'count']);
	/** Lines of the table, for choosing one without a pointer. */
	const lines = $derived(subjects(desk.trial.pieces).filter(({ subject }) => subject.kind === 'line'));
</script>

<form
	class="step"
	use:inSight
	aria-label={operation.title}
	onsubmit={(e) => {
		e.preventDefault();
		onkeep();
	}}
>
	<h3>{operation.title}</h3>
	{#if operation.sided || operation.sections.length > 1}
		<div class="stands">
			{#if operation.sided}
				<label>
					<span class="soft">For</span>
					<select
						class="field"
						value={step.half}
						onchange={(e) => onchange({ ...step, half: e.currentTarget.value as Half })}
					>
						<option value="both">both halves</option>
						<option value="left">the left half</option>
						<option value="right">the right half</option>
					</select>
				</label>
			{/if}
			{#if operation.sections.length > 1}
				<label>
					<span class="soft">Stands in</span>
					<select
						class="field"
						value={step.section ?? operation.sections[0]}
						onchange={(e) => onchange({ ...step, section: e.currentTarget.value as Section })}
					>
						{#each operation.sections as section (section)}<option value={section}>{section}</option>{/each}
					</select>
				</label>
			{/if}
		</div>
	{/if}
	<p class="words">{stage ? spoken(stage.words) : ''}</p>
	{#each fields as field (field.name)}
		{#if NUMBERS.has(field.kind)}
			<AmountField
				field={{ ...field, meaning: called(field) }}
				value={Number(value(field) ?? 0)}
				onvalue={(entered) => set(field.name, entered)}
			/>
		{:else if SELECTS.has(field.kind)}
			<div class="other">
				<label for="{own}-{field.name}">{called(field)}</label>
				<select
					id="{own}-{field.name}"
					class="field"
					value={String(value(field) ?? '')}
					onchange={(e) => set(field.name, e.currentTarget.value)}
				>
					{#each choices(field) as choice (choice.value)}
						<option value={choice.value}>{choice.label}</option>
					{/each}
					{#if !choices(field).some((c) => c.value === value(field))}
						<option value={String(value(field) ?? '')}
							>{lineName(String(value(field) ?? '')) || 'the usual one'}</option
						>
					{/if}
				</select>
			</div>
		{:else if field.kind === 'switch'}
			<label class="switch">
				<input
					type="checkbox"
					checked={Boolean(value(field))}
					onchange={(e) => set(field.name, e.currentTarget.checked)}
				/>
				{called(field)}
			</label>
		{:else if field.kind === 'text'}
			<div class="other">
				<label for="{own}-{field.name}">{called(field)}</label>
				<input
					id="{own}-{field.name}"
					class="field"
					value={String(value(field) ?? '')}
					onchange={(e) => set(field.name, e.currentTarget.value)}
				/>
			</div>
		{:else if field.kind === 'place' || field.kind === 'line'}
			{@const place = value(field) as Place | null}
			<div class="other">
				<span id="{own}-{field.name}">{called(field)}</span>
				<span class="row">
					<select
						class="field"
						use:openedFirst
						aria-labelledby="{own}-{field.name}"
						onchange={(e) => online(field.name, lines[Number(e.currentTarget.value)]!.subject)}
					>
						<option selected value="">{place ? lineName(place.along) : 'choose a line'}</option>
						{#each lines as line, i (i)}<option value={i}>{line.label}</option>{/each}
					</select>
					<button
						type="button"
						class="button small"
						aria-pressed={waiting === field.name}
						onclick={() => onwait(waiting === field.name ? null : field.name)}
						>{waiting === field.name ? 'now point…' : 'Point at it'}</button
					>
				</span>
				{#if field.kind === 'place' && place && places[field.name]}
					<PlaceField
						meaning={called(field)}
						line={places[field.name]!}
						fraction={place.fraction ?? 0.5}
						onfraction={(fraction) => set(field.name, { ...place, fraction })}
					/>
				{/if}
			</div>
		{:else if field.kind === 'lines'}
			<p class="soft">
				{called(field)}: {((value(field) as Place[]) ?? []).map((line) => lineName(line.along)).join(', ')}
			</p>
		{:else if field.kind === 'pieces'}
			{@const chosen = (value(field) as string[]) ?? []}
			<fieldset class="pieces">
				<legend>{called(field)}</legend>
				{#each desk.trial.pieces as piece (piece.name)}
					<label class="switch">
						<input
							type="checkbox"
							checked={chosen.includes(piece.name)}
							onchange={(e) =>
								set(
									field.name,
									e.currentTarget.checked
										? [...chosen, piece.name]
										: chosen.filter((name) => name !== piece.name),
								)}
						/>
						{piece.title}
					</label>
				{/each}
			</fieldset>
		{/if}
	{/each}
	<div class="other">
		<label for="{own}-why">Why</label>
		<input
			id="{own}-why"
			class="field wide"
			value={step.why}
			placeholder="for the record: what it is for"
			onchange={(e) => onchange({ ...step, why: e.currentTarget.value })}
		/>
	</div>
	<p class="deeds">
		<button class="button main" type="submit" disabled={desk.deeds.busy}
			>{isNew ? 'Keep this step' : 'Keep the change'}</button
		>
		<button class="button" type="button" onclick={onleave}>Leave it</button>
	</p>
	<!-- Below what is clicked: what is told while a step is tried must not move it from under the pointer. -->
	{#if stage?.failure}
		<p class="note" role="status">{spoken(stage.failure)} {spoken(stage.fix)}</p>
	{:else if stage?.sums.length}
		<dl class="sums figures">
			{#each stage.sums as [what, amount, unit], i (i)}
				<dt>{what}</dt>
				<dd>{unit === 'cm' ? shown(amount) : `${Math.round(amount * 100) / 100}${unit}`}</dd>
			{/each}
		</dl>
	{/if}
</form>

<style>
	.step {
		border: 1px solid var(--chalk);
		border-radius: var(--radius-base);
		background: var(--paper);
		padding: 0.6rem 0.8rem;
		margin-bottom: 0.8rem;
	}
	h3 {
		font-size: 1.05rem;
		margin: 0 0 0.2rem;
	}
	.stands {
		display: flex;
		gap: 0.6rem;
		margin-bottom: 0.3rem;
	}
	.stands label {
		flex: 1;
	}
	.words {
		margin: 0 0 0.4rem;
		min-height: 2lh;
	}
	.other {
		padding: 0.25rem 0;
	}
	.other label,
	.other > span:first-child {
		display: block;
		font-size: 0.95rem;
	}
	.row {
		display: flex;
		gap: 0.5rem;
	}
	select,
	.wide {
		width: 100%;
		min-width: 0;
	}
	.pieces {
		border: 1px solid var(--line);
		border-radius: var(--radius-base);
		margin: 0.3rem 0;
		padding: 0.1rem 0.6rem;
	}
	.pieces legend {
		font-size: 0.95rem;
	}
	.pieces .switch {
		padding: 0.1rem 0;
	}
	.switch {
		display: flex;
		gap: 0.5rem;
		padding: 0.3rem 0;
	}
	.soft {
		margin: 0.2rem 0;
	}
	.sums {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 0 0.8rem;
		margin: 0.4rem 0;
		font-size: 0.92rem;
	}
	dt {
		color: var(--ink-soft);
	}
	dd {
		margin: 0;
		text-align: right;
	}
	.deeds {
		display: flex;
		gap: 0.5rem;
		margin: 0.5rem 0;
	}
</style>
