/** What can be pointed at on the table, and where on it: names and shares; lengths are the core's. */
import { lineName } from '../words';
import type { Piece } from '../api/client';
import { nearest } from './along';
import { flattened, type Pair } from './view';

export type SubjectKind = 'dart' | 'line' | 'level' | 'piece' | 'garment';

export interface Subject {
	kind: SubjectKind;
	name: string;
	piece: string;
	fraction: number;
}

/** Return how far along a line of a piece (0…1, in ring order) the place nearest to a point lies. */
export function fractionOn(piece: Piece, lineage: string, at: Pair): number {
	const ring = piece.edges.filter((edge) => edge.lineage === lineage && edge.role !== 'dart_leg');
	const ordered = inOrder(piece, ring);
	const whole = ordered.reduce((sum, edge) => sum + edge.length, 0);
	let gone = 0;
	let best = { far: Infinity, along: 0 };
	for (const edge of ordered) {
		const { far, along, long } = nearest(flattened(edge.curve as Pair[]), at);
		if (far < best.far) best = { far, along: gone + (edge.length * along) / (long || 1) };
		gone += edge.length;
	}
	return whole ? best.along / whole : 0.5;
}

/** Return the edges of one line from its beginning in ring order: the ring may start within the line. */
function inOrder<E extends { start: string; end: string }>(piece: Piece, edges: E[]): E[] {
	const all = piece.edges;
	const first = edges.findIndex((edge) => {
		const at = all.findIndex((e) => e.start === edge.start);
		let before = all[(at - 1 + all.length) % all.length]!;
		for (let i = 2; before.role === 'dart_leg' && i <= all.length; i++)
			before = all[(at - i + all.length) % all.length]!;
		return !edges.some((e) => e.start === before.start);
	});
	return first > 0 ? [...edges.slice(first), ...edges.slice(0, first)] : edges;
}

/** Return everything on the table that can be pointed at, for choosing it without a pointer. */
export function subjects(pieces: Piece[]): { label: string; subject: Subject }[] {
	const found: { label: string; subject: Subject }[] = [
		{ label: 'the whole garment', subject: { kind: 'garment', name: '', piece: '', fraction: 0.5 } },
	];
	for (const piece of pieces) {
		const on = (kind: SubjectKind, name: string): Subject => ({
			kind,
			name,
			piece: piece.name,
			fraction: 0.5,
		});
		found.push({ label: piece.title, subject: on('piece', piece.name) });
		for (const dart of piece.darts)
			found.push({ label: `${piece.title}: ${lineName(dart.name)}`, subject: on('dart', dart.name) });
		const lines = new Set(piece.edges.filter((e) => e.role !== 'dart_leg').map((e) => e.lineage));
		for (const line of lines)
			found.push({ label: `${piece.title}: ${lineName(line)}`, subject: on('line', line) });
		for (const level of new Set(piece.lines.filter((l) => l.around).map((l) => l.level)))
			found.push({ label: `${piece.title}: ${level} level`, subject: on('level', level) });
	}
	return found;
}
