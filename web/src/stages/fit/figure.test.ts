import { expect, test } from 'vitest';
import type { Sum } from '../../lib/api/client';
import { figureOf, sidePath, spotAt } from './figure';

function sum(symbol: string, value: number): Sum {
	return {
		symbol,
		value,
		label: '',
		group: '',
		unit: 'cm',
		state: 'taken',
		formula: '',
		worked: '',
		condition: '',
		residual: 0,
		reason: '',
		source: '',
		uses: [],
		draws: [],
	};
}

test('a fuller waist makes a broader figure at the waist and nowhere else', () => {
	const slim = figureOf([sum('waist_girth', 62), sum('hip_girth', 98)]);
	const full = figureOf([sum('waist_girth', 110), sum('hip_girth', 98)]);
	expect(full.levels.waist.half).toBeGreaterThan(slim.levels.waist.half);
	expect(full.levels.bust).toEqual(slim.levels.bust);
	expect(full.levels.hip).toEqual(slim.levels.hip);
});

test('the left side mirrors the right', () => {
	const figure = figureOf([]);
	const numbers = (path: string): number[] => (path.match(/-?\d+\.?\d*/g) ?? []).map(Number);
	const right = numbers(sidePath(figure, 1));
	const left = numbers(sidePath(figure, -1));
	expect(left.map((n, i) => (i % 2 ? n : -n))).toEqual(right);
});

test('a spot lies on the body at its level', () => {
	const figure = figureOf([]);
	const spot = spotAt(figure, 'bust', 1);
	expect(spot.x).toBe(figure.levels.bust.half);
	expect(spot.y).toBe(figure.levels.bust.y);
});
