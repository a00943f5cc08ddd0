import { describe, expect, it } from 'vitest';
import type { Piece } from '../api/client';
import { fractionOn, subjects } from './picking';
import { flattened } from './view';

const edge = (role: string, lineage: string, start: string, end: string, curve: number[][], length: number) =>
	({ role, lineage, start, end, curve, length }) as Piece['edges'][number];

/** A square of 10 with a dart in its foot. */
const piece = {
	name: 'skirt_front',
	title: 'Skirt front',
	part: 'skirt_front',
	darts: [{ name: 'skirt_front.dart', family: 'waist' }],
	lines: [
		{ level: 'hip', around: true, points: [] },
		{ level: 'pocket', around: false, points: [] },
	],
	edges: [
		edge('waist', 'waist', 'a', 'm', [[0, 0], [4, 0]], 4),
		edge('dart_leg', 'dart', 'm', 't', [[4, 0], [5, 3]], 3.2),
		edge('dart_leg', 'dart', 't', 'n', [[5, 3], [6, 0]], 3.2),
		edge('waist', 'waist', 'n', 'b', [[6, 0], [10, 0]], 4),
		edge('side', 'side', 'b', 'c', [[10, 0], [10, 10]], 10),
		edge('hem', 'hem', 'c', 'd', [[10, 10], [0, 10]], 10),
		edge('centre_front', 'centre', 'd', 'a', [[0, 10], [0, 0]], 10),
	],
} as unknown as Piece; // prettier-ignore

describe('pointing at a line', () => {
	it('tells how far along it, the darts on the way shut', () => {
		expect(fractionOn(piece, 'side', [10, 2.5])).toBeCloseTo(0.25);
		expect(fractionOn(piece, 'waist', [2, 0.1])).toBeCloseTo(0.25);
		expect(fractionOn(piece, 'waist', [8, -0.2])).toBeCloseTo(0.75);
		expect(fractionOn(piece, 'waist', [5, -1])).toBeCloseTo(0.5);
	});

	it('begins where the line begins in ring order, though the ring may begin within it', () => {
		const turned = { ...piece, edges: [...piece.edges.slice(3), ...piece.edges.slice(0, 3)] } as Piece;
		expect(fractionOn(turned, 'waist', [2, 0])).toBeCloseTo(0.25);
	});

	it('follows a curve', () => {
		const points = flattened([[0, 0], [0, 4], [6, 10], [10, 10]]); // prettier-ignore
		expect(points[0]).toEqual([0, 0]);
		expect(points.at(-1)).toEqual([10, 10]);
		expect(points.length).toBe(13);
	});
});

describe('choosing without a pointer', () => {
	it('lists the garment, each piece, its darts, lines once each, and levels', () => {
		const labels = subjects([piece]).map((s) => s.label);
		expect(labels[0]).toBe('the whole garment');
		expect(labels).toContain('Skirt front: skirt front dart');
		expect(labels.filter((label) => label === 'Skirt front: waist')).toHaveLength(1);
		expect(labels).toContain('Skirt front: hip level');
		expect(labels.join()).not.toContain('pocket');
		expect(labels).not.toContain('Skirt front: dart');
	});
});
