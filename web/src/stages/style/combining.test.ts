import { describe, expect, it } from 'vitest';
import type { Piece } from '../../lib/api/client';
import { cornerAt, corners, lines, pairs, runOf, shifted } from './combining';

type Side = [role: string, lineage: string, start: string, curve: [number, number][]];

function piece(name: string, zone: string, sides: Side[], more: Partial<Piece> = {}): Piece {
	const edges = sides.map(([role, lineage, start, curve], i) => ({
		role,
		lineage,
		start,
		end: sides[(i + 1) % sides.length]![2],
		curve,
		length: 1,
	}));
	return {
		name,
		zone,
		region: 'upper',
		layer: 'outer',
		title: name,
		edges,
		diamonds: [],
		...more,
	} as unknown as Piece;
}

/** A front as drafted, and one as traced, 3 further right and 2 further up: names differ, what they are does not. */
function front(name: string, part: string, [dx, dy]: [number, number] = [0, 0]): Piece {
	const at = (x: number, y: number): [number, number] => [x + dx, y + dy];
	return piece(name, 'front', [
		['centre_front', `${part}.centre`, `${part}.neck_cf`, [at(0, 30), at(0, 0)]],
		['hem', `${part}.hem`, `${part}.hem_cf`, [at(0, 0), at(20, 0)]],
		['side', `${part}.side`, `${part}.hem_side`, [at(20, 0), at(20, 18)]],
		['armhole', `${part}.armhole`, `${part}.underarm`, [at(20, 18), at(16, 18), at(14, 24), at(14, 34)]],
		['shoulder', `${part}.shoulder`, `${part}.tip`, [at(14, 34), at(7, 37)]],
		['neck', `${part}.neck`, `${part}.neck_shoulder`, [at(7, 37), at(7, 33), at(3, 30), at(0, 30)]],
	]);
}

describe('two patterns laid over each other', () => {
	const drafted = front('bodice_front', 'front');
	const traced = front('cardigan', 'cardigan', [3, 2]);

	it('pairs pieces by name, else by the part of the body that they alone cover', () => {
		expect(pairs([traced], [drafted])).toEqual([{ mine: traced, other: drafted }]);
		expect(pairs([traced], [drafted, { ...drafted, name: 'yoke' }])).toEqual([]);
		expect(pairs([drafted], [{ ...drafted, zone: 'back' }])[0]!.other.zone).toBe('back');
		expect(pairs([traced], [{ ...drafted, layer: 'lining' } as Piece])).toEqual([]);
	});

	it('finds the lines and corners that are the same by what they are', () => {
		expect(lines(traced, drafted)).toContainEqual({ mine: 'cardigan.armhole', other: 'front.armhole' });
		expect(lines(traced, drafted)).toHaveLength(6);
		expect(corners(traced, drafted)).toContainEqual({ mine: 'cardigan.tip', other: 'front.tip' });
		expect(cornerAt(traced, 'cardigan.tip')).toEqual([17, 36]);
	});

	it('takes a line of several edges as one, and none that a dart parts', () => {
		const sides = traced.edges.map((edge) =>
			edge.role === 'hem' ? { ...edge, lineage: 'cardigan.side' } : edge,
		);
		expect(runOf({ ...traced, edges: sides } as Piece, 'cardigan.side')).toEqual(
			[
				[3, 2],
				[3 + 20 / 3, 2],
				[3 + 40 / 3, 2],
				[23, 2],
				[23, 8],
				[23, 14],
				[23, 20],
			].map((at) => at.map((n) => expect.closeTo(n, 9))),
		);
		const parted = traced.edges.map((edge) =>
			edge.role === 'shoulder' ? { ...edge, lineage: 'cardigan.side' } : edge,
		);
		expect(runOf({ ...traced, edges: parted } as Piece, 'cardigan.side')).toBeNull();
	});

	it('lays a piece elsewhere whole', () => {
		expect(shifted(drafted, [3, 2]).edges.map((edge) => edge.curve)).toEqual(
			traced.edges.map((edge) => edge.curve),
		);
	});
});
