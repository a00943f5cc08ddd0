import { expect, test } from 'vitest';
import type { BodyDrawing, Kind } from '../../lib/api/client';
import { spotAt, spotsOf } from './spots';

const figure: BodyDrawing = {
	outlines: {},
	details: {},
	tapes: {},
	levels: {
		neck: { y: 42, half: 5, middle: 0 },
		high_bust: { y: 21, half: 14, middle: 0 },
		bust: { y: 17, half: 14.5, middle: 0 },
		waist: { y: 0, half: 12, middle: 0 },
	},
};

test('a spot lies on the body at its level, at its share of the half breadth', () => {
	expect(spotAt(figure, 'bust', 1)).toEqual({ x: 14.5, y: 17 });
	expect(spotAt(figure, 'waist', -0.5)).toEqual({ x: -6, y: 0 });
});

test('shoulder and across lie between neck and armpit, the shoulder higher', () => {
	const shoulder = spotAt(figure, 'shoulder', 0.5);
	const across = spotAt(figure, 'across', 0.5);
	expect(shoulder.y).toBeLessThan(42);
	expect(shoulder.y).toBeGreaterThan(across.y);
	expect(across.y).toBeGreaterThan(21);
});

test('a level that the body does not have lies at the waist', () => {
	expect(spotAt(figure, 'knuckle', 0).y).toBe(0);
});

test('kinds that a fingertip covers share a spot', () => {
	const kinds = [
		{ key: 'a', level: 'bust', across: 0.5 },
		{ key: 'b', level: 'bust', across: 0.6 },
		{ key: 'c', level: 'waist', across: 0.5 },
	] as Kind[];
	expect(spotsOf(figure, kinds).map((spot) => spot.kinds.map((kind) => kind.key))).toEqual([
		['a', 'b'],
		['c'],
	]);
});
