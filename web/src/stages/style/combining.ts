/**
 * Two patterns laid over each other: which pieces, corners and lines of them are the same thing. What has one name is one
 * thing; else what it is tells: a front is a front, a line is the only armhole of its piece, a corner is where two lines meet.
 */
import type { Edge, Piece } from '../../lib/api/client';

/** Something of this pattern, and what it is on the other. */
export interface Same {
	mine: string;
	other: string;
}

/** Return the pieces of two patterns that are the same, in the order of the first. */
export function pairs(mine: readonly Piece[], others: readonly Piece[]): { mine: Piece; other: Piece }[] {
	return mine.flatMap((piece) => {
		const other = others.find((one) => one.name === piece.name) ?? only(others, piece, mine);
		return other ? [{ mine: piece, other }] : [];
	});
}

/** Return the one piece that covers the same part of the body, where either pattern has one alone. */
function only(others: readonly Piece[], piece: Piece, mine: readonly Piece[]): Piece | undefined {
	const alike = (one: Piece): boolean =>
		!!piece.region && one.zone === piece.zone && one.region === piece.region && one.layer === piece.layer;
	const found = others.filter(alike);
	return found.length === 1 && mine.filter(alike).length === 1 ? found[0] : undefined;
}

function outer(piece: Piece): Edge[] {
	return piece.edges.filter((edge) => edge.role !== 'dart_leg');
}

/** Return the lines that both pieces have in one run. */
export function lines(mine: Piece, other: Piece): Same[] {
	const named = [...new Set(outer(mine).map((edge) => edge.lineage))];
	return named.flatMap((line) => {
		const theirs = outer(other).some((edge) => edge.lineage === line) ? line : sameRole(mine, other, line);
		return theirs && runOf(mine, line) && runOf(other, theirs) ? [{ mine: line, other: theirs }] : [];
	});
}

function sameRole(mine: Piece, other: Piece, line: string): string | undefined {
	const role = outer(mine).find((edge) => edge.lineage === line)!.role;
	const of = (piece: Piece): string[] => [
		...new Set(
			outer(piece)
				.filter((edge) => edge.role === role)
				.map((edge) => edge.lineage),
		),
	];
	const theirs = of(other);
	return theirs.length === 1 && of(mine).length === 1 ? theirs[0] : undefined;
}

/** Return the control points of a line that lies on a piece in one run; null where a dart parts it. */
export function runOf(piece: Piece, lineage: string): [number, number][] | null {
	const { edges } = piece;
	const has = (i: number): boolean => edges.at(i % edges.length)!.lineage === lineage;
	const starts = edges.map((_, i) => i).filter((i) => has(i) && !has(i - 1 + edges.length));
	if (starts.length !== 1) return null;
	const run: Edge[] = [];
	for (let i = starts[0]!; has(i) && run.length < edges.length; i++) run.push(edges[i % edges.length]!);
	if (run.length === 1) return run[0]!.curve as [number, number][];
	return run.flatMap((edge, n) => cubic(edge.curve as [number, number][]).slice(n ? 1 : 0));
}

/** Return a line as the control points of cubics: a straight one has its handles on it. */
function cubic(curve: [number, number][]): [number, number][] {
	if (curve.length !== 2) return curve;
	const [[ax, ay], [bx, by]] = curve as [[number, number], [number, number]];
	const at = (share: number): [number, number] => [ax + (bx - ax) * share, ay + (by - ay) * share];
	return [curve[0]!, at(1 / 3), at(2 / 3), curve[1]!];
}

/** Return the corners that both pieces have: of one name, or the only ones where two lines of their roles meet. */
export function corners(mine: Piece, other: Piece): Same[] {
	const theirs = met(other);
	const own = met(mine);
	return own.flatMap(({ name, roles }) => {
		if (theirs.some((corner) => corner.name === name)) return [{ mine: name, other: name }];
		const alike = theirs.filter((corner) => corner.roles === roles);
		const alone = own.filter((corner) => corner.roles === roles).length === 1;
		return alone && alike.length === 1 ? [{ mine: name, other: alike[0]!.name }] : [];
	});
}

/** Return the corners of a piece with the roles of the lines that meet there. */
function met(piece: Piece): { name: string; roles: string }[] {
	return piece.edges.flatMap((edge, i) => {
		const before = piece.edges.at(i - 1)!;
		if (edge.role === 'dart_leg' || before.role === 'dart_leg') return [];
		return [{ name: edge.start, roles: [before.role, edge.role].sort().join(' ') }];
	});
}

/** Return where a corner of a piece lies. */
export function cornerAt(piece: Piece, name: string): [number, number] {
	return piece.edges.find((edge) => edge.start === name)!.curve[0] as [number, number];
}

/** Return a piece laid elsewhere, to be drawn under another: its outline and its diamonds. */
export function shifted(piece: Piece, [dx, dy]: [number, number]): Piece {
	const move = ([x, y]: readonly number[]): [number, number] => [x! + dx, y! + dy];
	return {
		...piece,
		edges: piece.edges.map((edge) => ({ ...edge, curve: edge.curve.map(move) })),
		diamonds: piece.diamonds.map((diamond) => ({ ...diamond, outline: diamond.outline.map(move) })),
	} as Piece;
}
