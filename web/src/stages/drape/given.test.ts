import { describe, expect, it } from 'vitest';
import type { Given, Mark, Panel } from '../../lib/api/client';
import {
	curvePath,
	merged,
	middleOf,
	nameFor,
	newPanel,
	nextMark,
	nudge,
	withGraded,
	withKnownLength,
	withLine,
	withMark,
	withMarkAs,
	withMarkMoved,
	withOpen,
	withPanel,
	withSeam,
	withTable,
	withoutMark,
	withoutPanel,
} from './given';
import { linesIn } from '../../lib/marks/marks';
import { NOTHING_GIVEN } from '../../lib/testing';

const mark = (kind: Mark['kind'], across: number, along: number, line = ''): Mark => ({
	kind,
	across,
	along,
	lines: line ? line.split('+') : [],
	name: '',
});
const panel = (name: string, ...marks: Mark[]): Panel => ({ ...newPanel(name, []), marks });
const front = panel(
	'front',
	mark('dash', 0, 4, 'neck+centre_front'),
	mark('dash', 0, -18, 'centre_front+waist'),
);
const back = panel('back', mark('dash', 0, 3, 'neck+centre_back'));
const both: Given = { ...NOTHING_GIVEN, panels: [front, back] };

describe('panels', () => {
	it('get a plain name that no other has', () => {
		expect(nameFor('Side front', [])).toBe('side_front');
		expect(nameFor('  Vorderteil, Mitte ', [])).toBe('vorderteil_mitte');
		expect(nameFor('???', [])).toBe('panel');
		expect(nameFor('Front', ['front', 'front_2'])).toBe('front_3');
	});

	it('are put in the place of the one of their name, or added', () => {
		const longer = withMark(front, mark('cross', 9, -18, 'waist+princess'));
		expect(withPanel(both, longer).panels).toEqual([longer, back]);
		expect(withPanel(both, panel('side')).panels.map((one) => one.name)).toEqual(['front', 'back', 'side']);
	});

	it('take their seams with them when they go', () => {
		const seam = {
			first: { panel: 'front', line: 'side' },
			second: { panel: 'back', line: 'side' },
			ease: 0,
		};
		const open = [{ panel: 'back', line: 'neck' }];
		const left = withoutPanel({ ...both, seams: [seam], open }, 'front');
		expect(left.panels).toEqual([back]);
		expect(left.seams).toEqual([]);
		expect(left.open).toEqual(open);
	});
});

describe('marks', () => {
	it('are added, changed, moved and removed without touching the others', () => {
		const dot = mark('dot', 3, -18, 'waist');
		expect(withMark(front, dot).marks.at(-1)).toBe(dot);
		expect(withMark(front, dot, 1).marks[1]).toBe(dot);
		expect(withMarkAs(front, 1, { along: -17 }).marks.map((m) => m.along)).toEqual([4, -17]);
		expect(withMarkMoved(front, 0, 1).marks).toEqual([front.marks[1], front.marks[0]]);
		expect(withMarkMoved(front, 0, -1)).toBe(front);
		expect(withMarkMoved(front, 1, 1)).toBe(front);
		expect(withoutMark(front, 0).marks).toEqual([front.marks[1]]);
		expect(front.marks).toHaveLength(2);
	});

	it('go on along the line that leaves the corner typed last', () => {
		expect(nextMark(panel('new'))).toEqual({ kind: 'dash', line: '' });
		expect(nextMark(front)).toEqual({ kind: 'dot', line: 'waist' });
		expect(nextMark(withMark(front, mark('dot', 3, -18, 'waist')))).toEqual({ kind: 'dot', line: 'waist' });
	});

	it('lie on the lines that are typed, two at most', () => {
		expect(linesIn(' Neck + princess ')).toEqual(['neck', 'princess']);
		expect(linesIn('centre front')).toEqual(['centre_front']);
		expect(linesIn('a+b+c')).toEqual(['a', 'b']);
		expect(linesIn('')).toEqual([]);
	});

	it('are moved by the arrows, a millimetre or a sixteenth of an inch', () => {
		expect(nudge('ArrowLeft', false, 'cm')).toEqual({ across: -0.1, along: 0 });
		expect(nudge('ArrowUp', true, 'cm')).toEqual({ across: 0, along: 1 });
		expect(nudge('ArrowUp', false, 'in')!.along).toBeCloseTo(0.15875);
		expect(nudge('a', false, 'cm')).toBeNull();
	});
});

describe('what is said', () => {
	it('of a line is kept beside what was said before', () => {
		const said = withLine(withLine(front, 'waist', { way: 'straight' }), 'waist', { role: 'hem' });
		expect(said.lines.waist).toEqual({ role: 'hem', way: 'straight', square: null, drawn: [] });
	});

	it('of a seam undoes what the two lines were sewn to', () => {
		const end = (name: string, line = 'side') => ({ panel: name, line });
		const first = withSeam(both, { first: end('front'), second: end('back'), ease: 0 });
		const other = withSeam(first, { first: end('front'), second: end('side'), ease: 0.5 });
		expect(other.seams).toEqual([{ first: end('front'), second: end('side'), ease: 0.5 }]);
		const open = withOpen(other, [end('front'), end('side')]);
		expect(open.seams).toEqual([]);
		expect(open.open).toEqual([end('front'), end('side')]);
		expect(withSeam(open, { first: end('front'), second: end('back'), ease: 0 }).open).toEqual([end('side')]);
	});

	it('by a table counts for its own panels, whose facts stay', () => {
		const said = withPanel(both, { ...front, cut: 4 });
		const read = { ...NOTHING_GIVEN, panels: [panel('front', mark('dot', 1, 1))], levels: { waist: -18 } };
		const now = withTable(said, read);
		expect(now.panels.map((one) => one.name)).toEqual(['front', 'back']);
		expect(now.panels[0]).toMatchObject({ cut: 4, marks: [mark('dot', 1, 1)] });
		expect(now.levels).toEqual({ waist: -18 });
	});
});

describe('two who change the same pieces', () => {
	const mine = withPanel(both, withMark(front, mark('dot', 3, -18, 'waist')));

	it('each keep their own panels', () => {
		const theirs = withPanel(both, withMark(back, mark('dot', 2, 3, 'neck')));
		const now = merged(both, mine, theirs);
		expect(now.panels[0]).toEqual(mine.panels[0]);
		expect(now.panels[1]).toEqual(theirs.panels[1]);
	});

	it('keep what the other added, and lose what one removed', () => {
		const theirs = withPanel(both, panel('side'));
		expect(merged(both, mine, theirs).panels.map((one) => one.name)).toEqual(['front', 'back', 'side']);
		expect(merged(both, withoutPanel(both, 'back'), both).panels).toEqual([front]);
		expect(merged(both, withPanel(both, panel('yoke')), both).panels).toHaveLength(3);
	});

	it('keep levels and seams that only one changed', () => {
		const levels = { ...both, levels: { waist: -18 } };
		expect(merged(both, levels, both).levels).toEqual({ waist: -18 });
		expect(merged(both, mine, levels).levels).toEqual({ waist: -18 });
	});
});

it('a path is a line of two points, or cubics', () => {
	expect(curvePath([])).toBe('');
	expect(curvePath([[0, 0], [1, 2]])).toBe('M0 0L1 2'); // prettier-ignore
	expect(curvePath([[0, 0], [1, 0], [2, 1], [2, 2], [2, 3], [3, 4], [4, 4]])).toBe('M0 0C1 0 2 1 2 2C2 3 3 4 4 4'); // prettier-ignore
});

describe('where a line has its name', () => {
	it('is half way along a straight line, and at the middle point of a bent one', () => {
		expect(
			middleOf([
				[0, 0],
				[4, 2],
			]),
		).toEqual([2, 1]);
		expect(
			middleOf([
				[0, 0],
				[1, 5],
				[9, 9],
			]),
		).toEqual([1, 5]);
	});
});

describe('the size of given pieces', () => {
	it('is told by one known length, and by none again', () => {
		const of = { panel: 'front', line: 'centre_front' };
		const known = withKnownLength(both, of, 41);
		expect(known.enlarged).toEqual({ of, length: 41 });
		expect(withKnownLength(known, null, 0)).toEqual(both);
	});

	it('is graded by each measure of two bodies, and as it was once none is left', () => {
		const bust = withGraded(both, 'bust', { of: 92, to: 96 });
		const more = withGraded(bust, 'above', { of: 40, to: 41 });
		expect(more.graded).toEqual({
			widths: { bust: { of: 92, to: 96 } },
			above: { of: 40, to: 41 },
			below: null,
		});
		expect(withGraded(withGraded(more, 'above', null), 'bust', null)).toEqual(both);
		expect(bust.graded?.above).toBeNull();
	});
});
