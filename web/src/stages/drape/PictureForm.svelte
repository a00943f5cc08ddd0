<!-- From a picture: what tells its scale, what is traced in it, and what came of it, to be taken or left. -->
<script lang="ts">
	import { getDesk } from '../../lib/desk/context';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import ProblemNote from '../../lib/parts/ProblemNote.svelte';
	import { reading, shown, spoken } from '../../lib/units.svelte';
	import type { TraceBy, Traced } from '../../lib/api/client';
	import type { Capture } from './capture.svelte';
	import { TAKES } from './taken.svelte';

	interface Props {
		capture: Capture;
		/** The panels that there are, by name. */
		names: string[];
		ontake: (found: Traced) => void;
		onfile: (file: File) => void;
	}
	let { capture, names, ontake, onfile }: Props = $props();

	const desk = getDesk();
	const WAYS: [TraceBy, string][] = [
		['sheets', 'Printed sheets around the piece'],
		['points', 'Two points: a scan, or square on'],
		['rectangle', 'Four corners of a rectangle'],
		['grid', 'A diagram’s own grid'],
	];
	const LENGTHS: Record<TraceBy, string[]> = {
		sheets: [],
		points: ['Distance between the points'],
		rectangle: ['Its width', 'Its height'],
		grid: ['One square stands for'],
	};
	const found = $derived(capture.found);
	/** Whether there is a panel of that name: its marks give way. */
	const taken = $derived(names.includes(found?.panel.name ?? ''));

	/** How far something is off: finer than lengths are shown. */
	function fine(cm: number): string {
		return reading.unit === 'cm' ? `${(cm * 10).toFixed(1)} mm` : `${(cm / 2.54).toFixed(3)} in`;
	}

	function many(count: number, what: string, ending = 's'): string {
		return `${count} ${what}${count === 1 ? '' : ending}`;
	}

	function chosen(input: HTMLInputElement): void {
		const [file] = input.files ?? [];
		if (file) void capture.choose(file);
		input.value = '';
	}

	function drawing(input: HTMLInputElement): void {
		const [file] = input.files ?? [];
		if (file) onfile(file);
		input.value = '';
	}
</script>

{#if !capture.shown}
	<p>
		Print the four sheets at 100 %, from one printer. Lay the piece flat on a plain table of another tone, the
		sheets flat around it, none touching it. Photograph it from straight above, {spoken('⟦80 cm⟧')} to {spoken(
			'⟦140 cm⟧',
		)} up, with the main lens.
	</p>
	<p>
		<a class="button small" href="/api/trace-sheets?paper=a4" download>The sheets for A4</a>
		<a class="button small" href="/api/trace-sheets?paper=letter" download>for Letter</a>
	</p>
	<label class="file">
		<span class="button main">{capture.sending ? 'Sending…' : 'Choose a picture, or take one'}</span>
		<input
			class="sr-only"
			type="file"
			accept="image/jpeg,image/png,image/webp"
			aria-label="Choose a picture, or take one"
			disabled={capture.sending}
			onchange={(e) => chosen(e.currentTarget)}
		/>
	</label>
	<p class="soft">
		A scan, a diagram in a book or an old pattern will do as well: its scale is told by a known length, a
		rectangle or a grid.
	</p>
	<label class="file">
		<span class="button">Read a drawing: SVG, DXF or a pattern file</span>
		<input
			class="sr-only"
			type="file"
			accept=".svg,.dxf,.json"
			aria-label="Read a drawing: SVG, DXF or a pattern file"
			onchange={(e) => drawing(e.currentTarget)}
		/>
	</label>
{:else if !found}
	<label class="row">
		<span>What it is called</span>
		<input class="field" bind:value={capture.title} maxlength="60" placeholder="Side front" />
	</label>
	<label class="row">
		<span>What tells the scale</span>
		<select
			class="field"
			value={capture.by}
			onchange={(e) => {
				capture.by = e.currentTarget.value as TraceBy;
				capture.again();
			}}
		>
			{#each WAYS as [by, words] (by)}<option value={by}>{words}</option>{/each}
		</select>
	</label>
	{#if capture.by === 'sheets'}
		<label class="row">
			<span>Printed on</span>
			<select class="field" bind:value={capture.paper}>
				<option value="a4">A4</option>
				<option value="letter">Letter</option>
			</select>
		</label>
		<NumberField
			label="The bar beside the checkers measures"
			value={capture.bar}
			unit="cm"
			low={15}
			high={25}
			onvalue={(value) => (capture.bar = value)}
		/>
		<NumberField
			label="Thickness of the piece, where over {spoken('⟦0.1 cm⟧')}"
			value={capture.thick || null}
			unit="cm"
			low={0}
			high={5}
			onvalue={(value) => (capture.thick = value)}
			onempty={() => (capture.thick = 0)}
		/>
	{/if}
	{#each LENGTHS[capture.by] as label, i (label)}
		<NumberField
			{label}
			value={capture.lengths[i] ?? null}
			unit="cm"
			low={0.5}
			high={500}
			onvalue={(value) => (capture.lengths[i] = value)}
		/>
	{/each}
	<fieldset>
		<legend>What is traced</legend>
		<label><input type="radio" bind:group={capture.of} value="outline" /> its edge, as it was cut</label>
		<label><input type="radio" bind:group={capture.of} value="marks" /> the pencil marks on it</label>
	</fieldset>
	{#if capture.work.underWay}
		<p role="status">
			<progress max={capture.work.work?.of || 1} value={capture.work.work?.done ?? 0} aria-label="Tracing"
			></progress>
			Tracing…
			<button class="button" onclick={() => void capture.work.stop()}>Stop</button>
		</p>
	{:else}
		<div class="deeds">
			<button class="button main" disabled={!capture.ready} onclick={() => void capture.trace()}
				>Trace it</button
			>
			{#if capture.tap || capture.spots.length}
				<button class="button" onclick={() => capture.again()}>Click anew</button>
			{/if}
			<button class="button" onclick={() => capture.begin()}>Another picture</button>
		</div>
		{#if !capture.ready && !capture.asked}
			<p class="soft">
				{capture.title.trim() ? 'Type the known length.' : 'Say what it is called.'}
			</p>
		{/if}
	{/if}
{:else}
	<h3>{found.panel.title}</h3>
	<dl class="figures">
		{#if found.checked !== null && found.checked !== undefined}
			<dt>Calibration checked to</dt>
			<dd>{fine(found.checked)}, {((found.share ?? 0) * 100).toFixed(2)} %</dd>
			<dt>Camera</dt>
			<dd>{Math.round(found.tilt ?? 0)}° off square</dd>
		{/if}
		<dt>Sharpness</dt>
		<dd>
			{reading.unit === 'cm'
				? `${Math.round(found.px_per_cm)} pixels a cm`
				: `${Math.round(found.px_per_cm * 2.54)} pixels an inch`}
		</dd>
		<dt>Contrast over noise</dt>
		<dd>{Math.round(found.contrast)}; 8 is needed</dd>
		<dt>Found</dt>
		<dd>
			{many(found.lines.length, 'line')}, {many(found.notches, 'notch', 'es')}, {many(found.darts, 'dart')}, {many(
				found.ghosts.length,
				'pencil mark',
			)}
		</dd>
	</dl>
	{#each found.warnings as words (words)}<p class="warn">{spoken(words)}</p>{/each}
	<table>
		<thead><tr><th>Line</th><th class="number">long</th><th class="number">edge off it</th></tr></thead>
		<tbody>
			{#each found.lines as line, i (i)}
				<tr>
					<td>{line.name.replaceAll('_', ' ')}</td>
					<td class="number figures">{shown(line.length)}</td>
					<td class="number figures" class:warn={line.ragged}>{fine(line.off)}</td>
				</tr>
			{/each}
		</tbody>
	</table>
	<h4>Correct it over the picture</h4>
	<div class="tools" role="radiogroup" aria-label="A click takes">
		{#each TAKES as { kind, key } (kind)}
			<label class="button small" class:main={capture.tool === kind}>
				<input class="sr-only" type="radio" name="takes" value={kind} bind:group={capture.tool} />{kind}
				<kbd>{key}</kbd>
			</label>
		{/each}
	</div>
	<p class="soft">
		A click takes the nearest one. Drag what is taken, or choose it and move it by the arrow keys, with Shift
		finely; Delete drops it. On the picture the arrow keys move a pointer, and the letter takes one there.
	</p>
	<div class="deeds">
		{#if capture.taken.current !== null}
			{@const chosen = capture.taken.current}
			<button class="button small" onclick={() => capture.taken.drop(chosen)}
				>Drop the {capture.taken.all[chosen]?.kind}</button
			>
		{/if}
		<button class="button small" disabled={!capture.taken.canUndo} onclick={() => capture.taken.undo()}
			>Undo the correction</button
		>
		{#if capture.work.underWay}<span role="status">Tracing…</span>{/if}
	</div>
	<details>
		<summary>Check it by a tape in the picture</summary>
		<NumberField
			label="The tape reads, between two clicks"
			value={capture.tapeReads}
			unit="cm"
			low={20}
			high={300}
			onvalue={(value) => {
				capture.tapeReads = value;
				if (capture.tape.length === 2) void capture.trace();
			}}
		/>
		<button
			class="button small"
			aria-pressed={capture.tool === 'tape'}
			onclick={() => {
				capture.tape = [];
				capture.tool = capture.tool === 'tape' ? 'corner' : 'tape';
			}}>{capture.tool === 'tape' ? 'Leave the tape' : 'Click it in the picture'}</button
		>
		{#if found.tape && capture.tape.length === 2}
			<p class="figures" class:warn={!found.tape.agrees}>
				Measured {shown(found.tape.measured)}: {fine(Math.abs(found.tape.measured - found.tape.known))} off.
				{found.tape.agrees
					? 'That agrees.'
					: 'That is too much: look where the tape was clicked, whether it lies flat, and what the bar measures.'}
			</p>
		{/if}
	</details>
	<label class="row">
		<span>Stands upright</span>
		<select
			class="field"
			value={capture.upright === null ? '' : String(capture.upright)}
			onchange={(e) => {
				capture.upright = e.currentTarget.value === '' ? null : Number(e.currentTarget.value);
				void capture.trace();
			}}
		>
			<option value="">as the picture has it</option>
			{#each found.lines as line, i (i)}<option value={String(i)}>{line.name.replaceAll('_', ' ')}</option
				>{/each}
		</select>
	</label>
	<div class="deeds">
		<button
			class="button main"
			disabled={desk.deeds.busy || capture.work.underWay}
			onclick={() => ontake(found)}
			>{taken ? `Take it in place of “${found.panel.title}”` : 'Take it as a panel'}</button
		>
		<button class="button" onclick={() => capture.again()}>Click anew</button>
	</div>
{/if}
{#if capture.problem}<ProblemNote problem={capture.problem} />{/if}

<style>
	.row {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 0.6rem;
		margin: 0.5rem 0;
	}
	.row .field {
		max-width: 15rem;
	}
	.file {
		display: block;
		margin: 0.8rem 0;
	}
	.file:focus-within .button {
		outline: 2px solid var(--chalk);
		outline-offset: 2px;
	}
	fieldset {
		border: 0;
		padding: 0;
		margin: 0.6rem 0;
	}
	fieldset label {
		display: block;
		margin: 0.3rem 0;
	}
	.tools {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem;
	}
	.tools label:focus-within {
		outline: 2px solid var(--chalk);
		outline-offset: 2px;
	}
	h4 {
		margin: 0.8rem 0 0.4rem;
	}
	summary {
		cursor: pointer;
		font-weight: 600;
	}
	.deeds {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
		margin: 0.8rem 0;
	}
	dl {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: 0.2rem 1rem;
	}
	dt {
		color: var(--ink-soft);
	}
	dd {
		margin: 0;
	}
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th {
		text-align: left;
		font-weight: 500;
		color: var(--ink-soft);
	}
	td,
	th {
		padding: 0.2rem 0.3rem;
		border-bottom: 1px solid var(--rule);
	}
	.number {
		text-align: right;
	}
	.warn {
		color: var(--wax);
	}
</style>
