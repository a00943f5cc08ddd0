<!-- From marks to a pattern: what is to be looked at again, what each line and panel is, the seams, the levels. -->
<script lang="ts">
	import type { Given, GivenOut, LineSaid, Panel, Query, SeamEnd } from '../../lib/api/client';
	import { shelf } from '../../lib/desk/catalogue.svelte';
	import NumberField from '../../lib/parts/NumberField.svelte';
	import { shown, spoken } from '../../lib/units.svelte';
	import { withLine, withPanel, type Laid } from './given';
	import Beside from './Beside.svelte';
	import Lines from './Lines.svelte';
	import Seams from './Seams.svelte';
	import Size from './Size.svelte';
	import type { Typed } from './typed.svelte';

	interface Props {
		typed: Typed;
		found: GivenOut;
		chosen: string;
		onchoose: (name: string) => void;
		first: SeamEnd | null | undefined;
		onpoint: (on: boolean) => void;
		onend: (end: SeamEnd) => void;
		onlight: (lineages: string[]) => void;
		laid: Laid | null;
		onlay: (laid: Laid | null) => void;
		/** Go to the marks of a panel, at one of them. */
		onmarks: (panel: string, mark: number | null) => void;
	}
	let { typed, found, chosen, onchoose, first, onpoint, onend, onlight, laid, onlay, onmarks }: Props =
		$props();

	const given = $derived(typed.given);
	const panel = $derived(given.panels.find((one) => one.name === chosen) ?? given.panels[0]);
	const made = $derived(found.panels.find((one) => one.name === panel?.name));
	const queries = $derived(found.panels.flatMap((one) => one.queries));
	const SOURCES: Record<Given['source'], string> = {
		drape: 'muslin draped on the form',
		wrap: 'a wrap of the body',
		trace: 'an old pattern or a diagram',
		file: 'a drawing',
	};
	const LEVELS = ['bust', 'waist', 'hip'] as const;
	const ZONES = ['front', 'back', 'sleeve', 'body', 'gusset', 'added'] as const;
	const REGIONS = { upper: 'bodice', skirt: 'skirt', legs: 'trousers', arm: 'sleeve', '': 'none' } as const;
	const LAYERS = ['outer', 'lining', 'facing', 'interfacing', 'strength', 'applied'] as const;

	function change(next: Panel): void {
		typed.try(withPanel(given, next));
	}
	function say(name: string, line: string, said: Partial<LineSaid>): void {
		const of = given.panels.find((one) => one.name === name);
		if (of) change(withLine(of, line, said));
	}
	function level(name: string, along: number | null): void {
		const levels = { ...given.levels };
		if (along === null) delete levels[name];
		else levels[name] = along;
		typed.try({ ...given, levels });
	}
	function throughAll(query: Query): void {
		say(query.panel, query.lines[0]!, { way: 'through_all' });
	}
</script>

<p class="figures">
	{found.cubics}
	{found.cubics === 1 ? 'curve' : 'curves'} in all; the farthest dot lies {shown(found.farthest)} off its line.
</p>
{#each queries as query, i (i)}
	<div class="query" class:stops={query.stops}>
		<p>{spoken(query.words)} <span>{spoken(query.fix)}</span></p>
		<div class="deeds">
			{#if query.marks.length}
				<button class="button small" onclick={() => onmarks(query.panel, query.marks[0] ?? null)}
					>Go to mark {query.marks[0]! + 1}</button
				>
			{:else}
				<button class="button small" onclick={() => onmarks(query.panel, null)}>Go to its marks</button>
			{/if}
			{#if query.code === 'dot-off' && query.lines[0]}
				<button class="button small" onclick={() => throughAll(query)}>Through all dots</button>
			{:else if query.code === 'not-square'}
				<button class="button small" onclick={() => say(query.panel, query.lines[0]!, { square: true })}
					>Make it square</button
				>
				<button class="button small" onclick={() => say(query.panel, query.lines[0]!, { square: false })}
					>It is not square</button
				>
			{/if}
		</div>
	</div>
{/each}
<p class="source">
	<label for="source">Taken from</label>
	<select
		id="source"
		class="field"
		value={given.source}
		onchange={(e) => typed.try({ ...given, source: e.currentTarget.value as Given['source'] })}
	>
		{#each Object.entries(SOURCES) as [source, words] (source)}<option value={source}>{words}</option>{/each}
	</select>
</p>
{#if given.source === 'wrap'}
	{#each shelf.all?.cautions.wrap ?? [] as caution (caution)}<p class="soft">{caution}</p>{/each}
{/if}
{#if found.around.length}
	<table class="figures readings">
		<thead><tr><th>around the</th><th>panels</th><th>body</th><th>panels less body</th></tr></thead>
		<tbody>
			{#each found.around as sum (sum.level)}
				<tr class:off={given.source === 'wrap' && !sum.agrees}>
					<th scope="row">{sum.level}</th>
					<td>{shown(sum.around)}</td>
					<td>{shown(sum.girth)}</td>
					<td>{sum.around < sum.girth ? '−' : '+'}{shown(Math.abs(sum.around - sum.girth))}</td>
				</tr>
			{/each}
		</tbody>
	</table>
	{#if given.source === 'wrap'}
		<p class="soft">
			{found.around.every((sum) => sum.agrees)
				? 'The wrap adds up to the girths that were taken before it, within what film and tape are off.'
				: 'The wrap does not add up to the girths that were taken before it: it was pulled tight or slipped there, or a panel was traced wrongly. Wrap again, or look at that panel.'}
			Cuts that let a panel lie flat are marked as slashes; what opens there is traced as a dart.
		</p>
	{/if}
{/if}
<details open>
	<summary
		>Seams <span class="soft"
			>{found.seams.filter((seam) => !seam.trued).length || 'all'}
			{found.seams.some((seam) => !seam.trued) ? 'do not agree' : 'agree'}</span
		></summary
	>
	<Seams
		{given}
		{found}
		{first}
		{onpoint}
		{onend}
		ontry={(next) => typed.try(next)}
		{onlight}
		{laid}
		{onlay}
	/>
</details>
<details>
	<summary>What the panels are</summary>
	<div class="deeds" role="group" aria-label="Panels">
		{#each given.panels as one (one.name)}
			<button
				class="button small"
				class:main={one.name === panel?.name}
				aria-pressed={one.name === panel?.name}
				onclick={() => onchoose(one.name)}>{one.title || one.name}</button
			>
		{/each}
	</div>
	{#if panel && made}
		<Lines {panel} found={made} onsay={(line, said) => say(panel.name, line, said)} {onlight} />
		<div class="facts">
			<label
				><span>lies on the</span>
				<select
					class="field"
					value={made.zone}
					onchange={(e) => change({ ...panel, zone: e.currentTarget.value as Panel['zone'] })}
				>
					{#each ZONES as zone (zone)}<option value={zone}>{zone}</option>{/each}
				</select></label
			>
			<label
				><span>is of the</span>
				<select
					class="field"
					value={made.region}
					onchange={(e) => change({ ...panel, region: e.currentTarget.value as Panel['region'] })}
				>
					{#each Object.entries(REGIONS) as [region, words] (region)}
						<option value={region}>{words}</option>
					{/each}
				</select></label
			>
			<label
				><span>layer</span>
				<select
					class="field"
					value={panel.layer}
					onchange={(e) => change({ ...panel, layer: e.currentTarget.value as Panel['layer'] })}
				>
					{#each LAYERS as layer (layer)}<option value={layer}>{layer}</option>{/each}
				</select></label
			>
			<label
				><span>on the fold</span>
				<select
					class="field"
					value={made.fold}
					onchange={(e) => change({ ...panel, fold: e.currentTarget.value, cut: null })}
				>
					<option value="">nothing</option>
					{#each [...new Set(made.lines.map((line) => line.name).filter(Boolean))] as line (line)}
						<option value={line}>{line.replaceAll('_', ' ')}</option>
					{/each}
				</select></label
			>
			<NumberField
				label="cut"
				value={made.cut}
				unit="×"
				low={1}
				high={12}
				onvalue={(cut) => change({ ...panel, cut: Math.round(cut) })}
			/>
			<NumberField
				label="grain off the upright guide"
				value={panel.grain}
				unit="°"
				low={-90}
				high={90}
				onvalue={(grain) => change({ ...panel, grain })}
			/>
		</div>
	{/if}
</details>
<details>
	<summary>Body levels</summary>
	<p class="soft">How high each lies over the level guide; below it, less than nothing.</p>
	{#each LEVELS as name (name)}
		<NumberField
			label={name}
			value={given.levels[name] ?? null}
			unit="cm"
			low={-200}
			high={200}
			onvalue={(along) => level(name, along)}
			onempty={() => level(name, null)}
		/>
	{/each}
</details>
<details>
	<summary>Size{given.graded ? ': graded' : given.enlarged ? ': enlarged' : ''}</summary>
	<Size {given} {found} ontry={(next) => typed.try(next)} />
</details>
<details>
	<summary>Beside the draft</summary>
	<Beside />
</details>

<style>
	.source {
		display: flex;
		gap: 0.6rem;
		align-items: center;
		margin: 0.5rem 0;
	}
	.off td {
		color: var(--wax);
	}
	p {
		margin: 0.3rem 0;
	}
	.query {
		margin: 0 0 0.4rem;
		padding: 0.3rem 0.6rem;
		border-left: 3px solid var(--amber);
		background: var(--amber-soft);
	}
	.query p span,
	.soft {
		font-weight: 400;
	}
	.stops {
		border-color: var(--wax);
		background: var(--wax-soft);
	}
	.deeds {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem;
		margin: 0.3rem 0;
	}
	details {
		margin: 0.6rem 0;
	}
	summary {
		cursor: pointer;
		font-weight: 600;
	}
	.facts {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0.3rem 1rem;
		margin-top: 0.6rem;
	}
	.facts label {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 0.5rem;
	}
	.facts select {
		min-height: 2rem;
		padding: 0.1rem 0.3rem;
	}
</style>
