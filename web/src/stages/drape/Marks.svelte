<!-- Marks typed in the order of walking round a panel, by keyboard alone; or pasted, or read from a table. -->
<script lang="ts">
	import { answered, api, asProblem, type Given, type Panel, type Problem } from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import MarkRow from '../../lib/marks/MarkRow.svelte';
	import { MEANINGS } from '../../lib/marks/marks';
	import NewMark from '../../lib/marks/NewMark.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { reading, spoken } from '../../lib/units.svelte';
	import {
		LINES,
		newPanel,
		nextMark,
		withMark,
		withMarkAs,
		withMarkMoved,
		withPanel,
		withTable,
		withoutMark,
		withoutPanel,
	} from './given';
	import type { Typed } from './typed.svelte';

	interface Props {
		typed: Typed;
		/** The panel that is typed, by name. */
		chosen: string;
		onchoose: (name: string) => void;
		current: number | null;
		oncurrent: (mark: number | null) => void;
		/** Names of panels that the form was measured for and that have no marks yet. */
		suggested: string[];
	}
	let { typed, chosen, onchoose, current, oncurrent, suggested }: Props = $props();

	const desk = getDesk();
	const given = $derived(typed.given);
	const panel = $derived(given.panels.find((one) => one.name === chosen));
	const found = $derived(desk.trial.preview?.given?.panels.find((one) => one.name === chosen));
	const odd = $derived(new Set((found?.queries ?? []).flatMap((query) => query.marks)));
	const lines = $derived([
		...new Set([...LINES, ...given.panels.flatMap((one) => one.marks.flatMap((mark) => mark.lines))]),
	]);
	const open = $derived(suggested.filter((title) => !given.panels.some((one) => one.title === title)));
	let title = $state('');
	let pasted = $state('');
	let refused = $state.raw<Problem | null>(null);
	/** How many marks were added here: the next one is typed in fields of its own. */
	let added = $state(0);
	let typing = $state(false);
	let rows = $state<HTMLElement>();

	function change(next: Panel): void {
		typed.try(withPanel(given, next));
	}

	function add(name: string): void {
		if (!name.trim()) return;
		const made = newPanel(
			name,
			given.panels.map((one) => one.name),
		);
		typed.try(withPanel(given, made));
		title = '';
		typing = true;
		added += 1;
		onchoose(made.name);
	}

	async function read(text: string): Promise<void> {
		try {
			const { given: table } = await answered(api.POST('/api/marks', { body: { text, unit: reading.unit } }));
			refused = null;
			pasted = '';
			typed.try(withTable(given, table as Given));
			onchoose(table.panels[0]!.name);
		} catch (error) {
			refused = asProblem(error);
		}
	}

	async function file(input: HTMLInputElement): Promise<void> {
		const [chosenFile] = input.files ?? [];
		if (chosenFile) await read(await chosenFile.text());
		input.value = '';
	}

	/** Up and down go from mark to mark in the same column; with Alt the mark itself is moved on or back in the walk. */
	function key(event: KeyboardEvent): void {
		const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
		const target = event.target as HTMLElement;
		const row = target.closest<HTMLElement>('[data-row], [data-new]');
		if (!by || !row || !panel || target instanceof HTMLSelectElement) return;
		event.preventDefault();
		const at = Number(row.dataset.row);
		if (event.altKey) {
			if (row.dataset.row === undefined) return;
			change(withMarkMoved(panel, at, by));
			oncurrent(Math.min(Math.max(at + by, 0), panel.marks.length - 1));
			return;
		}
		const all = [...(rows?.querySelectorAll<HTMLElement>('[data-row], [data-new]') ?? [])];
		const column = [...row.querySelectorAll('select, input')].indexOf(target);
		const next = all[all.indexOf(row) + by]?.querySelectorAll<HTMLElement>('select, input')[column];
		next?.focus();
	}

	function focused(event: FocusEvent): void {
		const row = (event.target as HTMLElement).closest<HTMLElement>('[data-row]');
		oncurrent(row ? Number(row.dataset.row) : null);
	}
</script>

<datalist id="drape-lines">
	{#each lines as line (line)}<option value={line}></option>{/each}
</datalist>
{#if typed.restored}
	<p class="note" role="status">Typed here before and not kept: it was put back.</p>
{/if}
{#if typed.unsafe}
	<p class="note" role="alert">This browser cannot put aside what is typed: keep it often.</p>
{/if}
<div class="panels" role="group" aria-label="Panels">
	{#each given.panels as one (one.name)}
		<button
			class="button small"
			class:main={one.name === chosen}
			aria-pressed={one.name === chosen}
			onclick={() => onchoose(one.name)}
		>
			{one.title || one.name} <span class="figures">{one.marks.length}</span>
		</button>
	{/each}
	{#each open as name (name)}
		<button class="button small" onclick={() => add(name)}>+ {name}</button>
	{/each}
	<form
		onsubmit={(e) => {
			e.preventDefault();
			add(title);
		}}
	>
		<input
			class="field"
			bind:value={title}
			maxlength="60"
			aria-label="A new panel"
			placeholder="a new panel"
		/>
		<button class="button small" disabled={!title.trim()}>Add</button>
	</form>
</div>
{#if panel}
	{#each found?.queries ?? [] as query, i (i)}
		<p class="query" class:stops={query.stops}>{spoken(query.words)} <span>{spoken(query.fix)}</span></p>
	{/each}
	<div class="mark-row heads" aria-hidden="true">
		<span></span><span>mark</span><span>across, {reading.unit}</span><span>along, {reading.unit}</span><span
			>on line</span
		>
	</div>
	<!-- svelte-ignore a11y_no_static_element_interactions -->
	<div class="rows" bind:this={rows} onkeydown={key} onfocusin={focused}>
		{#each panel.marks as mark, i (i)}
			<MarkRow
				{mark}
				at={i}
				current={current === i}
				odd={odd.has(i)}
				onchange={(by) => change(withMarkAs(panel, i, by))}
				onremove={() => change(withoutMark(panel, i))}
			/>
		{/each}
		{#key `${panel.name} ${added}`}
			{@const next = nextMark(panel)}
			<NewMark
				number={panel.marks.length + 1}
				kind={next.kind}
				line={next.line}
				autofocus={typing}
				onadd={(mark) => {
					change(withMark(panel, mark));
					typing = true;
					added += 1;
				}}
			/>
		{/key}
	</div>
	<p class="soft">
		Walk round the panel, either way. In the empty field <kbd>c</kbd> is a cross, <kbd>d</kbd> a dot,
		<kbd>n</kbd> a notch, <kbd>s</kbd> a slash, <kbd>h</kbd> a dash. Two lines that meet: neck+princess.
	</p>
	<details>
		<summary>What each mark is for</summary>
		<dl>
			{#each Object.entries(MEANINGS) as [kind, means] (kind)}<dt>{kind}</dt>
				<dd>{means}</dd>{/each}
		</dl>
		<p class="soft">
			Across is measured from the upright guide towards the side, along up from the level guide: to the other
			side and below they are less than nothing. A line whose name ends in “dart” is a dart. A mark within the
			panel, on no line, is “inside”.
		</p>
	</details>
	<button class="button small" onclick={() => typed.try(withoutPanel(given, panel.name))}
		>Remove {panel.title || panel.name}</button
	>
{:else}
	<p class="soft">Choose a panel, or add one: its marks are then typed in the order of walking round it.</p>
{/if}
<details>
	<summary>Paste marks, or read a table</summary>
	{#if refused}<ProblemNote problem={refused} />{/if}
	<textarea
		class="field"
		rows="4"
		bind:value={pasted}
		aria-label="Marks as a table"
		placeholder="panel,kind,across,along,line,name"></textarea>
	<div class="deeds">
		<button class="button small" disabled={!pasted.trim()} onclick={() => read(pasted)}>Take them</button>
		<label class="button small">
			Choose a file<input
				type="file"
				accept=".csv,text/csv,text/plain"
				onchange={(e) => file(e.currentTarget)}
			/>
		</label>
		<a href={`/api/jobs/${desk.job?.id}/files/marks`} download>The kept marks as a table</a>
	</div>
</details>

<style>
	.panels {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem;
		margin-bottom: 0.5rem;
	}
	.panels form {
		display: flex;
		gap: 0.3rem;
	}
	.panels input {
		min-height: 2rem;
		width: 8rem;
	}
	.query {
		margin: 0 0 0.4rem;
		padding: 0.3rem 0.6rem;
		border-left: 3px solid var(--amber);
		background: var(--amber-soft);
	}
	.query span {
		color: var(--ink-soft);
	}
	.stops {
		border-color: var(--wax);
		background: var(--wax-soft);
	}
	.note {
		margin: 0 0 0.4rem;
		color: var(--amber);
	}
	details {
		margin: 0.5rem 0;
	}
	summary {
		cursor: pointer;
		font-weight: 600;
	}
	dl {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: 0.1rem 0.8rem;
		margin: 0.3rem 0;
	}
	dd {
		margin: 0;
	}
	textarea {
		width: 100%;
		font-variant-numeric: tabular-nums;
	}
	.deeds {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.6rem;
	}
	.deeds a {
		text-decoration: underline;
	}
	label input {
		width: 0.1px;
		opacity: 0;
		position: absolute;
	}
	label:focus-within {
		outline: 2px solid var(--chalk);
		outline-offset: 2px;
	}
	kbd {
		font-family: inherit;
		font-weight: 600;
	}
</style>
