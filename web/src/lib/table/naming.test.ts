import { expect, test } from 'vitest';
import type { Piece } from '../api/client';
import { namesOn, type Name } from './naming';

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

const cut = (how: string) =>
	how === 'on the fold' ? { on_fold: 'centre', cut: 1 } : { on_fold: null, cut: 2 };

function nameOf(piece: Piece, words: string[], perPixel: number): Name {
	const named = { ...piece, title: words.slice(0, -1).join(', '), ...cut(words.at(-1)!) } as Piece;
	return namesOn([{ piece: named, dx: 0, dy: 0 }], perPixel).get(named)!;
}

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
	for (const perPixel of [0.1, 0.16, 0.2]) {
		const name = nameOf(rectangle(30, 60, { lines: [level] } as unknown as Partial<Piece>), WORDS, perPixel);
		const foot = name.at[1] - WORDS.length * 1.2 * name.size * perPixel;
		expect(name.leader).toBeNull();
		expect(name.at[1] < 30 || foot > 30).toBe(true);
	}
});

test('on a narrow piece it is smaller', () => {
	const name = nameOf(rectangle(26, 60), WORDS, 0.2);
	expect(name.leader).toBeNull();
	expect(name.size).toBeLessThan(15);
	expect(name.words).toEqual(WORDS);
});

test('on a narrower one its words stand one below another', () => {
	const name = nameOf(rectangle(28, 60), ['Bodice front', 'side panel', 'cut a pair'], 0.25);
	expect(name.leader).toBeNull();
	expect(name.words).toEqual(['Bodice', 'front', 'side', 'panel', 'cut a pair']);
});

test('where it does not fit it stands outside with a leader, clear of pieces and of other names', () => {
	const thin = (title: string): Piece => ({ ...rectangle(4, 20), title, on_fold: null, cut: 2 }) as Piece;
	const [left, right] = [thin('Collar stand'), thin('Collar')];
	const layout = [
		{ piece: left, dx: 0, dy: 0 },
		{ piece: right, dx: 22, dy: 0 },
	];
	const names = namesOn(layout, 0.12);
	const boxes = layout.map(({ piece, dx, dy }) => {
		const { at, words, size, leader } = names.get(piece)!;
		expect(leader).not.toBeNull();
		const wide = Math.max(...words.map((line) => line.length)) * 0.52 * size * 0.12;
		return {
			left: at[0] + dx,
			right: at[0] + dx + wide,
			head: at[1] + dy,
			foot: at[1] + dy - words.length * 1.2 * size * 0.12,
		};
	});
	const [one, other] = [boxes[0]!, boxes[1]!];
	const meet =
		one.left < other.right && other.left < one.right && one.foot < other.head && other.foot < one.head;
	expect(meet).toBe(false);
	for (const { piece, dx } of layout)
		for (const box of boxes) {
			const onIt = box.left < dx + 4 && dx < box.right && box.foot < 20 && 0 < box.head;
			expect(onIt, piece.title).toBe(false);
		}
});

test('beside a shoulder, over the lower piece next to it, a name stands where it is seen', () => {
	const words = { title: 'Bodice front, centre panel', on_fold: 'centre', cut: 1 } as const;
	const high = { ...rectangle(9, 48), ...words } as unknown as Piece;
	const lower = { ...rectangle(17, 34), ...words } as unknown as Piece;
	const below = { ...rectangle(30, 60), ...words } as unknown as Piece;
	const layout = [
		{ piece: high, dx: 0, dy: 0 },
		{ piece: lower, dx: 17, dy: 0 },
		{ piece: below, dx: 0, dy: -66 },
	];
	const perPixel = 0.24;
	const { at, words: lines, leader } = namesOn(layout, perPixel).get(high)!;
	expect(leader).not.toBeNull();
	expect(lines).toHaveLength(3);
	// 34 pixels above all pieces lie clear of the rule.
	expect(at[1]).toBeLessThanOrEqual(48 + 34 * perPixel);
	expect(at[0]).toBeGreaterThanOrEqual(9);
});

test('among many narrow pieces no name lies on a piece, on another name, or beyond the outermost pieces', () => {
	const layout = Array.from({ length: 9 }, (_, n) => ({
		piece: { ...rectangle(9, 34), title: 'Bodice back, side panel, right', on_fold: null, cut: 1 } as Piece,
		dx: n * 15,
		dy: 0,
	}));
	const perPixel = 0.28;
	const names = namesOn(layout, perPixel);
	const boxes = layout.map(({ piece, dx }) => {
		const { at, words, size, leader } = names.get(piece)!;
		expect(leader).not.toBeNull();
		const wide = Math.max(...words.map((line) => line.length)) * 0.52 * size * perPixel;
		const high = words.length * 1.2 * size * perPixel;
		return { left: at[0] + dx, right: at[0] + dx + wide, head: at[1], foot: at[1] - high };
	});
	const pieces = layout.map(({ dx }) => ({ left: dx, right: dx + 9, head: 34, foot: 0 }));
	const all = [...boxes, ...pieces];
	for (const [i, one] of boxes.entries()) {
		expect(one.left).toBeGreaterThan(-4);
		expect(one.right).toBeLessThan(8 * 15 + 9 + 4);
		for (const other of all.filter((_, j) => j !== i)) {
			const meet =
				one.left < other.right && other.left < one.right && one.foot < other.head && other.foot < one.head;
			expect(meet).toBe(false);
		}
	}
});

test('of a piece that stays, the name is not sought again', () => {
	const piece = { ...rectangle(30, 60), title: 'Skirt', on_fold: null, cut: 2 } as Piece;
	const name = namesOn([{ piece, dx: 0, dy: 0 }], 0.1).get(piece);
	expect(namesOn([{ piece, dx: 9, dy: 0 }], 0.1).get(piece)).toBe(name);
	expect(namesOn([{ piece, dx: 9, dy: 0 }], 0.3).get(piece)).not.toBe(name);
});

test('a name is never smaller than can be read', () => {
	for (const perPixel of [0.1, 0.3, 0.6]) {
		for (const wide of [4, 12, 24, 40]) {
			expect(nameOf(rectangle(wide, 50), WORDS, perPixel).size).toBeGreaterThanOrEqual(11);
		}
	}
});
