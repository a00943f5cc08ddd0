<!-- Drape: shapes from outside the draft. Prepare the form and the muslin, drape, type the marks, true them into pieces. -->
<script lang="ts">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';
	import { searchParams } from 'sv-router';
	import {
		answered,
		api,
		asProblem,
		Problem,
		type DrawnIn,
		type Drapes,
		type Given,
		type OnForm,
		type Panel,
		type SeamEnd,
		type Tear,
		type Traced,
		type Walk,
	} from '../../lib/api/client';
	import { getDesk } from '../../lib/desk/context';
	import TableAndPanel from '../../lib/parts/TableAndPanel.svelte';
	import { allRead } from '../../lib/parts/reads';
	import Table from '../../lib/table/Table.svelte';
	import type { Subject } from '../../lib/table/picking';
	import { spoken } from '../../lib/units.svelte';
	import { asSized, withMarkAs, withPanel, withSeam, withTable, type Laid } from './given';
	import { Capture } from './capture.svelte';
	import Marks from './Marks.svelte';
	import PanelSheet from './PanelSheet.svelte';
	import PictureForm from './PictureForm.svelte';
	import PictureSheet from './PictureSheet.svelte';
	import Prepare from './Prepare.svelte';
	import Session from './Session.svelte';
	import TearPicture from './TearPicture.svelte';
	import Truing from './Truing.svelte';
	import { Typed } from './typed.svelte';

	const desk = getDesk();
	desk.begin();
	const typed = new Typed(desk);
	typed.begin();

	const PARTS = [
		{ value: 'prepare', label: 'Prepare' },
		{ value: 'session', label: 'Session' },
		{ value: 'picture', label: 'Picture' },
		{ value: 'marks', label: 'Marks' },
		{ value: 'true', label: 'True' },
	];
	const UNITS: [DrawnIn, string][] = [
		['mm', 'mm'],
		['cm', 'cm'],
		['in', 'inches'],
		['pt', 'points'],
	];
	const shown = $derived(
		String(searchParams.get('part') ?? (desk.job?.recipe.given.panels.length ? 'true' : 'prepare')),
	);

	const drapes = desk.reads<Drapes>();
	void drapes.load(api.GET('/api/drapes'));
	const tears = desk.reads<Tear>();
	const form = $derived(desk.job!.on_form);
	$effect(() => {
		if (form.panels.length) void tears.load(api.POST('/api/tear', { body: form }));
	});

	const given = $derived(typed.given);
	const found = $derived(desk.trial.preview?.given ?? null);
	let wanted = $state('');
	const chosen = $derived(
		given.panels.some((panel) => panel.name === wanted) ? wanted : (given.panels[0]?.name ?? ''),
	);
	const sheet = $derived(given.panels.find((one) => one.name === chosen));
	const made = $derived(found?.panels.find((one) => one.name === chosen));
	/** Whether the shapes are drawn at another size than they were taken at: the picture under them is of that. */
	const sized = $derived(!!given.enlarged || !!given.graded);
	let current = $state<number | null>(null);
	let lit = $state<string[]>([]);
	/** The first of two lines that are pointed at to be sewn together. */
	let first = $state<SeamEnd | null | undefined>(undefined);

	/** Two panels that are laid together, so that what runs across their seam is seen. */
	let laid = $state.raw<Laid | null>(null);
	const walked = desk.reads<Walk>();
	$effect(() => {
		const { job, trial } = desk;
		// Laid anew whenever the panels change.
		if (!laid || !job || !trial.preview?.given?.seams.some((seam) => seam.name === laid?.seam)) return;
		const body = {
			sheet: job.sheet.id,
			recipe: trial.recipe ?? job.recipe,
			seam: laid.seam,
			job: job.id,
		};
		void walked.load(api.POST('/api/walk', { body }));
	});
	const together = $derived(
		laid && walked.value?.seam === laid.seam
			? { walk: walked.value, at: laid.end === 'start' ? 0 : walked.value.steps.length - 1 }
			: null,
	);

	function prepare(next: OnForm, words: string): void {
		void desk.deeds.prepareDrape(next, words);
	}

	const capture = new Capture(desk);
	/** A drawing that does not say what its numbers are in. */
	let unsaid = $state.raw<{ kind: 'svg' | 'dxf' | 'json'; content: string } | null>(null);

	/** Take what was traced as a panel, and keep its picture under it. */
	async function take(traced: Traced): Promise<void> {
		if (!(await desk.deeds.layPicture(traced))) return;
		typed.try(withPanel(given, traced.panel as Panel));
		capture.begin();
		goTo(traced.panel.name, null);
	}

	async function read(file: File): Promise<void> {
		const kind = file.name.split('.').pop()?.toLowerCase();
		if (kind !== 'svg' && kind !== 'dxf' && kind !== 'json') {
			capture.problem = new Problem(
				422,
				'unreadable-file',
				`“${file.name}” is no drawing that can be read.`,
				'Choose an SVG, a DXF, or a pattern file.',
			);
			return;
		}
		const bytes = new Uint8Array(await file.arrayBuffer());
		let text = '';
		for (let at = 0; at < bytes.length; at += 0x8000)
			text += String.fromCharCode(...bytes.subarray(at, at + 0x8000));
		await readAs({ kind, content: btoa(text) });
	}

	async function readAs(drawing: NonNullable<typeof unsaid>, unit: DrawnIn | null = null): Promise<void> {
		capture.problem = null;
		unsaid = null;
		try {
			const { given: drawn } = await answered(api.POST('/api/shapes', { body: { ...drawing, unit } }));
			typed.try(withTable(given, drawn as Given));
			goTo(drawn.panels[0]!.name, null);
		} catch (error) {
			const problem = asProblem(error);
			if (problem.code === 'unit-not-said') unsaid = drawing;
			else capture.problem = problem;
		}
	}

	function show(part: string): void {
		searchParams.set('part', part);
	}

	function pointed(end: SeamEnd): void {
		if (!first) first = end;
		else if (first.panel !== end.panel || first.line !== end.line) {
			typed.try(withSeam(given, { first, second: end, ease: 0 }));
			first = undefined;
		}
	}

	function pick(subject: Subject): void {
		if (subject.kind !== 'line') return;
		const [of, ...line] = subject.name.split('.');
		if (given.panels.some((one) => one.name === of)) pointed({ panel: of!, line: line.join('.') });
	}

	function move(by: { across: number; along: number }): void {
		const mark = sheet?.marks[current ?? -1];
		if (!sheet || !mark || current === null) return;
		const to = { across: mark.across + by.across, along: mark.along + by.along };
		const rounded = {
			across: Math.round(to.across * 1e4) / 1e4,
			along: Math.round(to.along * 1e4) / 1e4,
		};
		typed.try(withPanel(given, withMarkAs(sheet, current, rounded)));
	}

	/** Show a mark in the table of marks, with the focus on it. */
	function goTo(name: string, mark: number | null): void {
		wanted = name;
		show('marks');
		current = mark;
		if (mark !== null) focusMark(mark);
	}

	function row(mark: number): HTMLElement | null {
		return document.querySelector<HTMLElement>(`[data-row="${mark}"]`);
	}

	function focusMark(mark: number): void {
		requestAnimationFrame(() => row(mark)?.querySelector('input')?.focus());
	}

	async function keep(): Promise<void> {
		if (!(await allRead())) return;
		const count = given.panels.reduce((sum, one) => sum + one.marks.length, 0);
		await typed.keep(`marks: ${given.panels.length} panels, ${count} marks`);
	}
</script>

<TableAndPanel problem={desk.trial.problem} wide={shown === 'marks' || shown === 'true'}>
	{#snippet table()}
		{#if shown === 'session' && drapes.value}
			<Session drapes={drapes.value} {form} onkeep={prepare} />
		{:else if shown === 'marks' && sheet}
			<PanelSheet
				panel={sized ? asSized(sheet, made) : sheet}
				found={made}
				{current}
				levels={sized && found ? found.levels : given.levels}
				under={sized ? undefined : desk.job!.pictures.find((one) => one.lies.panel === sheet.name)}
				onpick={(mark) => {
					current = mark;
					row(mark)?.scrollIntoView({ block: 'nearest' });
				}}
				onmove={move}
			/>
		{:else if shown === 'picture' && capture.shown}
			<PictureSheet {capture} />
		{:else if shown === 'prepare' && tears.value?.strips.length}
			<TearPicture tear={tears.value} />
		{:else if desk.trial.pieces.length}
			<Table
				pieces={desk.trial.pieces}
				lit={new Set(lit)}
				walk={shown === 'true' ? together : null}
				onpick={first === undefined ? null : pick}
				label="The pieces: {desk.trial.pieces.map((piece) => piece.title.toLowerCase()).join(', ')}"
			/>
		{:else}
			<div class="empty">
				<p>
					{shown === 'prepare'
						? 'The muslin to tear is drawn here once a panel is measured.'
						: shown === 'picture'
							? 'The picture is shown here, to be clicked on.'
							: 'The panels are drawn here as their marks are typed.'}
				</p>
			</div>
		{/if}
	{/snippet}
	{#snippet panel()}
		<SegmentedControl value={shown} onValueChange={(e) => show(e.value ?? 'prepare')}>
			<SegmentedControl.Label class="sr-only">Show</SegmentedControl.Label>
			<SegmentedControl.Control class="w-full gap-0! p-1!">
				{#each PARTS as { value, label } (value)}
					<SegmentedControl.Item {value} class="flex-1 px-1!">
						<SegmentedControl.ItemText>{label}</SegmentedControl.ItemText>
						<SegmentedControl.ItemHiddenInput />
					</SegmentedControl.Item>
				{/each}
			</SegmentedControl.Control>
		</SegmentedControl>
		<div class="panel">
			{#if shown === 'prepare' && drapes.value}
				<Prepare
					drapes={drapes.value}
					{form}
					onkeep={prepare}
					bought={tears.value?.bought ?? 0}
					missing={tears.value?.missing ?? []}
				/>
				{#if tears.problem}<p class="wrong" role="alert">
						{spoken(tears.problem.message)}
						{spoken(tears.problem.fix)}
					</p>{/if}
			{:else if shown === 'session'}
				<h3>{drapes.value?.drapes.find((one) => one.key === form.drape)?.title ?? 'A draping session'}</h3>
				<p class="soft">
					{form.done.filter((key) => key.startsWith('step_')).length} of {drapes.value?.steps.length ?? 0} done.
				</p>
				{#each tears.value?.strips.flatMap((strip) => strip.blocks) ?? [] as block (block.key)}
					<p class="soft figures">
						{block.title}: {block.guides
							.map((guide) => `${guide.what} ${spoken(`⟦${Math.round(guide.at * 10) / 10} cm⟧`)}`)
							.join(', ')}
					</p>
				{/each}
				<button class="button" onclick={() => show('marks')}>Type the marks</button>
			{:else if shown === 'picture'}
				<PictureForm
					{capture}
					names={given.panels.map((one) => one.name)}
					ontake={(traced) => void take(traced)}
					onfile={(file) => void read(file)}
				/>
				{#if unsaid}
					{@const drawing = unsaid}
					<p role="alert">The drawing does not say what its numbers are in.</p>
					<div class="units">
						{#each UNITS as [unit, words] (unit)}
							<button class="button" onclick={() => void readAs(drawing, unit)}>{words}</button>
						{/each}
					</div>
				{/if}
			{:else if shown === 'marks'}
				<Marks
					{typed}
					{chosen}
					onchoose={(name) => {
						wanted = name;
						current = null;
					}}
					{current}
					oncurrent={(mark) => (current = mark)}
					suggested={form.panels.map((one) => one.title)}
				/>
			{:else if shown === 'true' && found}
				<Truing
					{typed}
					{found}
					{chosen}
					onchoose={(name) => (wanted = name)}
					{first}
					onpoint={(on) => (first = on ? null : undefined)}
					onend={pointed}
					onlight={(lineages) => (lit = lineages)}
					{laid}
					onlay={(next) => (laid = next)}
					onmarks={goTo}
				/>
			{:else if shown === 'true'}
				<p class="soft">Nothing is marked yet.</p>
				<button class="button" onclick={() => show('marks')}>Type the marks</button>
			{/if}
		</div>
		{#if typed.unkept && (shown === 'marks' || shown === 'true')}
			<div class="keep">
				<button class="button main" disabled={desk.deeds.busy} onclick={keep}>Keep the marks</button>
				<button class="button" disabled={desk.deeds.busy} onclick={() => typed.letGo()}>Let them go</button>
			</div>
		{/if}
	{/snippet}
</TableAndPanel>

<style>
	.panel {
		flex: 1;
		overflow: auto;
		min-height: 0;
		margin-top: 0.6rem;
	}
	.keep {
		display: flex;
		gap: 0.6rem;
		padding-top: 0.6rem;
		border-top: 1px solid var(--rule);
	}
	.units {
		display: flex;
		gap: 0.6rem;
	}
	.empty {
		display: grid;
		place-items: center;
		height: 100%;
		background: var(--table);
		color: var(--ink-soft);
		padding: 2rem;
		text-align: center;
	}
	.wrong {
		color: var(--wax);
	}
</style>
