import { expect, test } from 'vitest';
import type { Piece } from '../api/client';
import { curvePath, fitted, placed, placedAmong, shaped, ticks, zoomed } from './view';

test('a zoom keeps the place under the pointer where it is', () => {
	const view = { x: 0, y: 0, width: 100, height: 50 };
	const near = zoomed(view, 0.5, [20, 10]);
	expect((20 - near.x) / near.width).toBeCloseTo(20 / 100);
	expect((10 - near.y) / near.height).toBeCloseTo(10 / 50);
});

test('a view takes the shape of the screen and still holds what it held', () => {
	const view = shaped({ x: 0, y: 0, width: 40, height: 40 }, { width: 800, height: 400 });
	expect(view.width / view.height).toBeCloseTo(2);
	expect(view.x).toBeLessThanOrEqual(0);
	expect(view.x + view.width).toBeGreaterThanOrEqual(40);
});

test('straight lines and joined cubics become path data', () => {
	expect(
		curvePath([
			[0, 0],
			[1, 2],
		]),
	).toBe('M0 0L1 2');
	const seven = Array.from({ length: 7 }, (_, i) => [i, i]);
	expect(curvePath(seven).match(/C/g)).toHaveLength(2);
});

test('rules are labelled where they can be read, in either unit', () => {
	const cm = ticks(0, 30, 'cm', 10).filter((t) => t.label);
	expect(cm.map((t) => t.label)).toEqual(['0', '5', '10', '15', '20', '25', '30']);
	const inches = ticks(0, 30, 'in', 20).filter((t) => t.label);
	expect(inches[1]!.at).toBeCloseTo(2.54);
});

const box = (part: string, zone: string, region: string, low: number, high: number, wide: number) =>
	({
		part,
		zone,
		region,
		half: 'both',
		cutting: [],
		edges: [
			{
				curve: [
					[0, low],
					[wide, high],
				],
			},
		],
	}) as unknown as Piece;

test('a skirt hangs below its bodice, a sleeve lies beside it', () => {
	const [front, back, sleeve, skirt] = placed([
		box('front', 'front', 'upper', 0, 45, 24),
		box('back', 'back', 'upper', 0, 45, 22),
		box('sleeve', 'sleeve', 'arm', -45, 14, 32),
		box('skirt_front', 'front', 'skirt', -60, 0, 25),
	]).sort((a, b) => a.piece.part.length - b.piece.part.length || a.dx - b.dx);
	const by = Object.fromEntries([front!, back!, sleeve!, skirt!].map((p) => [p.piece.part, p]));
	expect(by.skirt_front!.dx).toBe(by.front!.dx);
	expect(by.skirt_front!.dy).toBeLessThan(0);
	expect(by.back!.dx).toBeGreaterThan(by.front!.dx + 24);
	expect(by.sleeve!.dx).toBeGreaterThan(by.back!.dx + 22);
});

test('all pieces are seen clear of the rules, on any screen', () => {
	const pieces = placed([
		box('front', 'front', 'upper', -20, 45, 24),
		box('sleeve', 'sleeve', 'arm', -45, 14, 32),
	]);
	const screen = { width: 850, height: 640 };
	const view = fitted(pieces, screen);
	const pixel = screen.width / view.width;
	expect((-45 - view.y) * pixel).toBeGreaterThan(26);
	expect((0 - view.x) * pixel).toBeGreaterThan(26);
	expect(view.y + view.height).toBeGreaterThan(45);
});

test('what lay on the table keeps its place while something is tried; what is new lies beyond it', () => {
	const square = (name: string, wide: number): Piece =>
		({
			name,
			region: '',
			zone: '',
			half: 'both',
			cutting: [],
			edges: [
				{
					curve: [
						[0, 0],
						[wide, 0],
					],
				},
				{
					curve: [
						[wide, 0],
						[0, 10],
					],
				},
			],
		}) as unknown as Piece;
	const before = placed([square('front', 20), square('back', 20)]);
	const after = placedAmong(before, [square('front', 35), square('back', 20), square('cuff', 8)]);
	expect(after.slice(0, 2).map(({ dx, dy }) => [dx, dy])).toEqual(before.map(({ dx, dy }) => [dx, dy]));
	expect(after[2]!.dx).toBeGreaterThan(before[1]!.dx + 20);
});
