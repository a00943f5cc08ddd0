import { expect, test } from 'vitest';
import type { Job, Piece } from '../../lib/api/client';
import { askedFor, cornerName, cornersOf, grouped, linesAt, NOW, papersOf, turned } from './papers';

const job = { rounds: [{ number: 1 }, { number: 2 }], sheet: { number: 1 } } as unknown as Job;
const papers = papersOf(job, [1, 2]);

test('a job has its muslins, itself as it is now, and what other measures would make of it', () => {
	expect(papers.map((paper) => paper.name)).toEqual(['muslin-1', 'muslin-2', NOW, 'sheet-2']);
	expect(papers.map((paper) => askedFor(paper.name))).toEqual([
		{ muslin: 1 },
		{ muslin: 2 },
		{},
		{ sheet: 2 },
	]);
});

test('a remedy that can be made is a sheet on trial, by its finding and its name', () => {
	const ways = [
		{ remedy: 'off_tip', title: 'Widen the back', refused: '' },
		{ remedy: 'ease', title: 'Slide the armhole', refused: 'More than can be eased in.' },
	];
	const planned = [{ finding: 'a-1', seen: 'Strain', remedy: '', title: '', refused: '', ways }];
	const all = papersOf(job, [1, 2], planned);
	const trial = all.at(-1);
	expect(trial?.title).toBe('trial: widen the back');
	expect(grouped(all).map(([group, papers]) => [group, papers.map((paper) => paper.name)])).toEqual([
		['', ['muslin-1', 'muslin-2', NOW, 'sheet-2']],
		['Strain', ['trial-a-1-off_tip']],
	]);
	expect(askedFor(trial!.name)).toEqual({ trial: { finding: 'a-1', remedy: 'off_tip' } });
});

test('the key goes around, and never lays a sheet on itself', () => {
	expect(turned(papers, 'muslin-1', 1, 'muslin-2')).toBe(NOW);
	expect(turned(papers, 'muslin-1', -1, NOW)).toBe('sheet-2');
	expect(turned(papers.slice(0, 1), 'muslin-1', 1, NOW)).toBe('muslin-1');
});

test('sheets are held at a corner, and along a line that begins or ends there', () => {
	const edge = (lineage: string, start: string, end: string, role = lineage) => ({
		lineage,
		start,
		end,
		role,
	});
	const piece = {
		edges: [edge('neck', 'a', 'b'), edge('leg', 'b', 'c', 'dart_leg'), edge('side', 'c', 'a')],
	} as unknown as Piece;
	expect(cornersOf(piece)).toEqual(['a', 'c']);
	expect(linesAt(piece, 'a')).toEqual(['neck', 'side']);
	expect(cornersOf(undefined)).toEqual([]);
	expect(cornerName(piece, 'a', (line) => `the ${line}`)).toBe('the neck and the side');
	expect(cornerName(piece, 'c', (line) => line)).toBe('side, at a dart');
});
