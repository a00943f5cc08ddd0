/** Changes of given panels, as functions: what comes of them the core works out. */
import type {
	Given,
	GivenPanel,
	LineSaid,
	Mark,
	Panel,
	Recipe,
	SeamEnd,
	SeamSaid,
} from '../../lib/api/client';
import { linesText, type Kind } from '../../lib/marks/marks';

/** Names of lines in use, offered where a line is typed. */
export const LINES = [
	'centre_front',
	'centre_back',
	'neck',
	'shoulder',
	'armhole',
	'princess',
	'side',
	'waist',
	'hem',
	'bust_dart',
	'waist_dart',
	'inside',
];

/** Two panels laid together at a seam: its name, and at which of its ends. */
export interface Laid {
	seam: string;
	end: 'start' | 'end';
}

/** Return the recipe with other given pieces. */
export function withGiven(recipe: Recipe, change: (given: Given) => Given): Recipe {
	return { ...recipe, given: change(recipe.given) };
}

/** Return a name by which seams can speak of a panel: plain letters, and none that is taken. */
export function nameFor(title: string, taken: readonly string[]): string {
	const plain =
		title
			.toLowerCase()
			.replace(/[^a-z0-9]+/g, '_')
			.replace(/^_+|_+$/g, '')
			.slice(0, 50) || 'panel';
	let name = plain;
	for (let n = 2; taken.includes(name); n++) name = `${plain}_${n}`;
	return name;
}

/** Return a new panel without marks. */
export function newPanel(title: string, taken: readonly string[]): Panel {
	return {
		name: nameFor(title, taken),
		title: title.trim().slice(0, 60),
		marks: [],
		lines: {},
		zone: null,
		region: null,
		half: 'both',
		layer: 'outer',
		cut: null,
		fold: null,
		grain: 0,
		levels: {},
	};
}

/** Return the given pieces with a panel in place of the one of the same name, or added at the end. */
export function withPanel(given: Given, panel: Panel): Given {
	const known = given.panels.some((one) => one.name === panel.name);
	const panels = known
		? given.panels.map((one) => (one.name === panel.name ? panel : one))
		: [...given.panels, panel];
	return { ...given, panels };
}

/** Return the given pieces without a panel, and without the seams that it was in. */
export function withoutPanel(given: Given, name: string): Given {
	return {
		...given,
		panels: given.panels.filter((panel) => panel.name !== name),
		seams: given.seams.filter((seam) => ends(seam).every((end) => end.panel !== name)),
		open: given.open.filter((end) => end.panel !== name),
	};
}

/** Return a panel with a mark put before another; at the end where there is none of that number. */
export function withMark(panel: Panel, mark: Mark, before = panel.marks.length): Panel {
	const marks = [...panel.marks];
	marks.splice(before, 0, mark);
	return { ...panel, marks };
}

/** Return a panel with a mark changed. */
export function withMarkAs(panel: Panel, at: number, change: Partial<Mark>): Panel {
	return { ...panel, marks: panel.marks.map((mark, i) => (i === at ? { ...mark, ...change } : mark)) };
}

/** Return a panel without a mark. */
export function withoutMark(panel: Panel, at: number): Panel {
	return { ...panel, marks: panel.marks.filter((_, i) => i !== at) };
}

/** Return a panel with a mark moved on or back in the walk round it; nothing changes beyond its ends. */
export function withMarkMoved(panel: Panel, at: number, by: number): Panel {
	const to = at + by;
	if (to < 0 || to >= panel.marks.length) return panel;
	const marks = [...panel.marks];
	const [mark] = marks.splice(at, 1);
	marks.splice(to, 0, mark!);
	return { ...panel, marks };
}

/**
 * Return what the next mark most likely is: after a corner a dot on the line that goes on from there, after a dot another.
 * The line that goes on from a corner is the one of its two that the marks before it were not on.
 */
export function nextMark(panel: Panel): { kind: Kind; line: string } {
	const last = panel.marks.at(-1);
	if (!last) return { kind: 'dash', line: '' };
	if (last.kind === 'dot' || last.kind === 'notch') return { kind: 'dot', line: linesText(last) };
	const before = panel.marks.at(-2)?.lines ?? [];
	const onward = last.lines.find((line) => !before.includes(line)) ?? last.lines.at(-1) ?? '';
	return { kind: 'dot', line: onward };
}

/** Return a panel with something said of a line. */
export function withLine(panel: Panel, line: string, change: Partial<LineSaid>): Panel {
	const now = panel.lines[line] ?? { role: null, way: 'dots', square: null, drawn: [] };
	return { ...panel, lines: { ...panel.lines, [line]: { ...now, ...change } } };
}

function ends(seam: SeamSaid): SeamEnd[] {
	return [seam.first, seam.second];
}

function same(a: SeamEnd, b: SeamEnd): boolean {
	return a.panel === b.panel && a.line === b.line;
}

/** Return the given pieces with two lines sewn together; whatever else they were sewn to is undone. */
export function withSeam(given: Given, seam: SeamSaid): Given {
	const without = ends(seam).reduce(withoutSeams, given);
	return { ...without, seams: [...without.seams, seam] };
}

function withoutSeams(given: Given, end: SeamEnd): Given {
	return {
		...given,
		seams: given.seams.filter((seam) => !ends(seam).some((side) => same(side, end))),
		open: given.open.filter((one) => !same(one, end)),
	};
}

/** Return the given pieces with two lines that are sewn to none. */
export function withOpen(given: Given, sides: readonly SeamEnd[]): Given {
	const without = sides.reduce(withoutSeams, given);
	return { ...without, open: [...without.open, ...sides] };
}

/** Return the panels of a table in place of those of the same title, the others added. */
export function withTable(given: Given, read: Given): Given {
	const added = read.panels.reduce((now, panel) => {
		const known = now.panels.find((one) => one.name === panel.name);
		return withPanel(now, known ? { ...known, marks: panel.marks } : panel);
	}, given);
	return { ...added, levels: { ...added.levels, ...read.levels } };
}

/** Return the path of control points: a straight line, or joined cubics. */
export function curvePath(points: readonly (readonly number[])[]): string {
	const at = ([x, y]: readonly number[]): string => `${x} ${y}`;
	const [first, ...rest] = points;
	if (!first) return '';
	if (rest.length === 1) return `M${at(first)}L${at(rest[0]!)}`;
	const cubics: string[] = [];
	for (let i = 0; i + 2 < rest.length; i += 3)
		cubics.push(`C${at(rest[i]!)} ${at(rest[i + 1]!)} ${at(rest[i + 2]!)}`);
	return `M${at(first)}${cubics.join('')}`;
}

/** Return how far a mark is moved by a key on the panel, in cm; null where the key moves nothing. */
export function nudge(
	key: string,
	far: boolean,
	unit: 'cm' | 'in',
): { across: number; along: number } | null {
	// A millimetre, or a sixteenth of an inch; with Shift ten times, or an inch.
	const by = unit === 'cm' ? (far ? 1 : 0.1) : far ? 2.54 : 2.54 / 16;
	const ways: Record<string, { across: number; along: number }> = {
		ArrowLeft: { across: -by, along: 0 },
		ArrowRight: { across: by, along: 0 },
		ArrowUp: { across: 0, along: by },
		ArrowDown: { across: 0, along: -by },
	};
	return ways[key] ?? null;
}

/**
 * Return given pieces as somebody changed them, laid on a newer state: panel by panel, what was not changed here stays as
 * it is there.
 */
export function merged(base: Given, mine: Given, theirs: Given): Given {
	const text = JSON.stringify;
	const was = (name: string): Panel | undefined => base.panels.find((panel) => panel.name === name);
	const kept = theirs.panels.flatMap((panel) => {
		const own = mine.panels.find((one) => one.name === panel.name);
		if (!own) return was(panel.name) ? [] : [panel];
		return [text(own) === text(was(panel.name)) ? panel : own];
	});
	const added = mine.panels.filter(
		(panel) => !was(panel.name) && !theirs.panels.some((one) => one.name === panel.name),
	);
	const changed = Object.fromEntries(
		(Object.keys(mine) as (keyof Given)[])
			.filter((key) => key !== 'panels' && text(mine[key]) !== text(base[key]))
			.map((key) => [key, mine[key]]),
	);
	return { ...theirs, ...changed, panels: [...kept, ...added] };
}

/** Return a place in the middle of a line, for its name: half way along a straight one, at the middle point of a bent one. */
export function middleOf(points: number[][]): [number, number] {
	const [a, b] = [points[Math.floor((points.length - 1) / 2)]!, points[Math.ceil((points.length - 1) / 2)]!];
	return [(a[0]! + b[0]!) / 2, (a[1]! + b[1]!) / 2];
}

/** What shapes are graded by: the girth at a level, or what lies above or below the waist. */
export type GradedBy = 'bust' | 'waist' | 'hip' | 'above' | 'below';

/** Return the given pieces enlarged so that a line is as long as is known, or as they were taken. */
export function withKnownLength(given: Given, of: SeamEnd | null, length: number): Given {
	return { ...given, enlarged: of && { of, length } };
}

/** Return the given pieces graded by one more measure of two bodies, or by one less. */
export function withGraded(given: Given, by: GradedBy, bodies: { of: number; to: number } | null): Given {
	const before = given.graded ?? { widths: {}, above: null, below: null };
	const graded = { ...before, widths: { ...before.widths } };
	if (by === 'above' || by === 'below') graded[by] = bodies;
	else if (bodies) graded.widths[by] = bodies;
	else delete graded.widths[by];
	const any = Object.keys(graded.widths).length || graded.above || graded.below;
	return { ...given, graded: any ? graded : null };
}

/** Return a panel as it is drawn: its marks at the size that was asked for. */
export function asSized(panel: Panel, found: GivenPanel | undefined): Panel {
	if (found?.spots.length !== panel.marks.length) return panel;
	const marks = panel.marks.map((mark, i) => {
		const [across, along] = found.spots[i]!;
		return { ...mark, across, along };
	});
	return { ...panel, marks };
}
