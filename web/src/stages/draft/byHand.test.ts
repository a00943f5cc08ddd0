import { expect, test } from 'vitest';
import type { Piece, Sum } from '../../lib/api/client';
import { hiddenAt, inOrder, linesOf, settledBy } from './byHand';

const edge = (lineage: string, role = 'side') => ({ lineage, role });
const pieces = [
	{
		edges: [edge('front.side'), edge('front.neck', 'neck'), edge('front.waist_dart', 'dart_leg')],
		darts: [{ name: 'front.waist_dart' }, { name: 'front.waist_dart_2' }],
		diamonds: [],
	},
] as unknown as Piece[];
const sum = (symbol: string, group: string, draws: string[]) => ({ symbol, group, draws }) as unknown as Sum;
const sums = [
	sum('bust_girth', 'Measures', ['front.side']),
	sum('width', 'Widths', ['front.side']),
	sum('neck', 'Neck', ['front.neck']),
	sum('take', 'Waist', ['front.side', 'front.waist_dart']),
];

test('measures are not stops of the drawing', () => {
	expect(inOrder(sums).map((s) => s.symbol)).toEqual(['width', 'neck', 'take']);
});

test('a line is drawn with the last sum that it depends on', () => {
	const steps = inOrder(sums);
	expect([...hiddenAt(pieces, steps, 0)]).toEqual([
		'front.side',
		'front.neck',
		'front.waist_dart',
		'front.waist_dart_2',
	]);
	expect(settledBy(pieces, steps, 1)).toEqual(['front.neck']);
	expect(settledBy(pieces, steps, 2)).toEqual(['front.side', 'front.waist_dart', 'front.waist_dart_2']);
	expect(hiddenAt(pieces, steps, 2).size).toBe(0);
});

test('a second dart comes with the first; legs are no lines', () => {
	expect(linesOf(pieces)).toEqual(['front.side', 'front.neck', 'front.waist_dart', 'front.waist_dart_2']);
});
