import { expect, test } from 'vitest';
import type { Piece } from '../api/client';
import { nameOf } from './naming';

function rectangle(wide: number, high: number, more: Partial<Piece> = {}): Piece {
	const corners = [
		[0, 0],
		[wide, 0],
		[wide, high],
		[0, high],
	];
	const edges = corners.map((corner, i) => ({ curve: [corner, corners[(i + 1) % 4]] }));
	return {
		edges,
		cutting: [],
		darts: [],
		diamonds: [],
		lines: [],
		notches: [],
		marks: {},
		grain: [
			[wide / 3, high * 0.1],
			[wide / 3, high * 0.9],
		],
		...more,
	} as unknown as Piece;
}

const WORDS = ['Skirt front', 'on the fold'];

test('a name stands inside, large, beside the grain line', () => {
	const name = nameOf(rectangle(30, 60), WORDS, 0.1);
	expect(name.size).toBe(15);
	expect(name.leader).toBeNull();
	expect(name.at[0]).toBeGreaterThan(10);
});

test('it keeps off a level line that crosses the piece', () => {
	const level = {
		level: 'hip',
		points: [
			[0, 30],
			[30, 30],
		],
	};
	for (const perPixel of [0.1, 0.2, 0.3]) {
		const name = nameOf(rectangle(30, 60, { lines: [level] } as unknown as Partial<Piece>), WORDS, perPixel);
		const foot = name.at[1] - WORDS.length * 1.2 * name.size * perPixel;
		expect(name.leader).toBeNull();
		expect(name.at[1] < 30 || foot > 30).toBe(true);
	}
});

test('on a narrow piece it is smaller', () => {
	const name = nameOf(rectangle(20, 60), WORDS, 0.2);
	expect(name.leader).toBeNull();
	expect(name.size).toBeLessThan(15);
	expect(name.words).toEqual(WORDS);
});

test('on a narrower one its words stand one below another', () => {
	const name = nameOf(rectangle(20, 60), ['Bodice front', 'side panel', 'pair'], 0.4);
	expect(name.leader).toBeNull();
	expect(name.words).toEqual(['Bodice', 'front', 'side', 'panel', 'pair']);
});

test('where it does not fit it stands outside with a leader, clear of the other pieces', () => {
	const right = { x: 5, y: -60, width: 100, height: 90 };
	const name = nameOf(rectangle(4, 20), WORDS, 0.3, [right]);
	expect(name.leader).not.toBeNull();
	expect(name.at[0]).toBeLessThan(0);
});
