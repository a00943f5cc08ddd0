import { expect, it } from 'vitest';
import { placeAt, shareNear } from './along';
import type { Pair } from './view';

/** A line of 4 and, beyond a dart, another of 6. */
const lines: Pair[][] = [
	[
		[0, 0],
		[4, 0],
	],
	[
		[6, 0],
		[6, 6],
	],
];

it('finds the place that lies so far along, over what a dart takes out', () => {
	expect(placeAt(lines, 0.2)).toEqual([2, 0]);
	expect(placeAt(lines, 0.7)).toEqual([6, 3]);
	expect(placeAt(lines, 2)).toEqual([6, 6]);
	expect(placeAt([], 0.5)).toBeNull();
});

it('finds how far along the nearest place to a point lies, and that place again', () => {
	expect(shareNear(lines, [2, 1])).toBeCloseTo(0.2);
	expect(shareNear(lines, [9, 3])).toBeCloseTo(0.7);
	expect(shareNear(lines, [-5, 0])).toBe(0);
	for (const share of [0.1, 0.35, 0.6, 0.95])
		expect(shareNear(lines, placeAt(lines, share)!)).toBeCloseTo(share);
});
