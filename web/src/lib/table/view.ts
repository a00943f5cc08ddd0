/** Screen geometry of the table: placing, zooming, paths. It draws; it never measures a seam. */
import type { Edge, Piece, PlaceLine } from '../api/client';

export type Pair = [number, number];

/** What part of the table is seen, in cm; y runs down, as on the screen. */
export interface View {
	x: number;
	y: number;
	width: number;
	height: number;
}

/** A pattern laid under another, and the pencil that it is drawn in. */
export interface Layer {
	pieces: Piece[];
	pencil?: string;
}

/** A place of a step: what it is, the line that it lies on, and how far along it (0…1). */
export interface Place {
	name: string;
	meaning: string;
	line: PlaceLine;
	share: number;
}

/** Marks on a piece, measured from two guide lines that cross at its `origin`. */
export interface Marking {
	piece: string;
	origin: Pair;
	marks: { kind: string; across: number; along: number }[];
}

export interface Placed {
	piece: Piece;
	dx: number;
	dy: number;
}

/** Pixels that are kept free at the sides with a rule, at the right, and at the foot with its tools. */
const RULED = 40;
/** Pixels above and below all pieces in which a name still stands clear of rule and tools. */
export const NAMED = 34;
/** Pixels that are kept free at the head: the rule, and names under it. */
const HEAD = 28 + NAMED;
const SPARE = 24;
const TOOLS = 52;
/** cm. Space between pieces on the table. */
const GAP = 6;

/** Place pieces side by side, waists on one line; what hangs from a front or a back lies below it. */
export function placed(pieces: Piece[]): Placed[] {
	let left = 0;
	const columns: Piece[][] = [];
	for (const piece of pieces) {
		const above = columns.find((column) => column.length === 1 && hangsFrom(piece, column[0]!));
		if (above) above.push(piece);
		else columns.push([piece]);
	}
	return columns.flatMap((column) => {
		const boxes = column.map(bounds);
		const x = Math.min(...boxes.map((box) => box.x));
		const dx = left - x;
		left += Math.max(...boxes.map((box) => box.x + box.width)) - x + GAP;
		return column.map((piece, i) => {
			const room = i ? boxes[0]!.y - (boxes[i]!.y + boxes[i]!.height) - GAP : 0;
			return { piece, dx, dy: Math.min(room, 0) };
		});
	});
}

/** Place pieces where they lay before; what is new lies beyond them all. */
export function placedAmong(before: Placed[], pieces: Piece[]): Placed[] {
	const old = new Map(before.map((at) => [at.piece.name, at]));
	const rest = placed(pieces.filter((piece) => !old.has(piece.name)));
	const ends = before.map(({ piece, dx }) => bounds(piece).x + bounds(piece).width + dx);
	const beyond = ends.length ? Math.max(...ends) + GAP : 0;
	const fresh = new Map(rest.map((at) => [at.piece.name, { ...at, dx: at.dx + beyond }]));
	return pieces.map((piece) => ({ ...(old.get(piece.name) ?? fresh.get(piece.name)!), piece }));
}

/** Whether a piece continues another below the waist: a skirt's front hangs from the front of a bodice. */
function hangsFrom(piece: Piece, other: Piece): boolean {
	const below = piece.region === 'skirt' || piece.region === 'legs';
	const sameHalf = piece.half === other.half || piece.half === 'both' || other.half === 'both';
	return below && other.region === 'upper' && piece.zone === other.zone && sameHalf;
}

/** Return points on a curve, near enough to point at it. */
export function flattened(points: readonly Pair[]): Pair[] {
	if (points.length === 2) return [...points];
	const found: Pair[] = [points[0]!];
	for (let i = 0; i + 3 < points.length; i += 3) {
		const [a, b, c, d] = points.slice(i, i + 4) as [Pair, Pair, Pair, Pair];
		for (let n = 1; n <= 12; n++) {
			const t = n / 12;
			const s = 1 - t;
			const w = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t] as const;
			found.push([
				w[0] * a[0] + w[1] * b[0] + w[2] * c[0] + w[3] * d[0],
				w[0] * a[1] + w[1] * b[1] + w[2] * c[1] + w[3] * d[1],
			]);
		}
	}
	return found;
}

/** Return the box around a piece in the pattern's frame, y up. */
export function bounds(piece: Piece): View {
	const points = [...piece.cutting, ...piece.edges.flatMap((edge) => edge.curve)] as Pair[];
	const xs = points.map((p) => p[0]);
	const ys = points.map((p) => p[1]);
	const x = Math.min(...xs);
	const y = Math.min(...ys);
	return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}

/** Return a view that shows all pieces with a margin, in the shape of the screen. */
export function fitted(pieces: Placed[], screen: { width: number; height: number }): View {
	if (!pieces.length) return { x: 0, y: -50, width: 100, height: 60 };
	const boxes = pieces.map(({ piece, dx, dy }) => {
		const box = bounds(piece);
		return {
			left: box.x + dx,
			right: box.x + dx + box.width,
			top: -(box.y + box.height + dy),
			foot: -(box.y + dy),
		};
	});
	const left = Math.min(...boxes.map((b) => b.left));
	const right = Math.max(...boxes.map((b) => b.right));
	const top = Math.min(...boxes.map((b) => b.top));
	const foot = Math.max(...boxes.map((b) => b.foot));
	// The rules lie over two sides, tools and readings over the foot: they take pixels, whatever the scale.
	const free = { width: screen.width - RULED - SPARE, height: screen.height - HEAD - TOOLS };
	const cm = Math.max((right - left) / Math.max(free.width, 1), (foot - top) / Math.max(free.height, 1));
	return shaped(
		{
			x: left - RULED * cm,
			y: top - HEAD * cm,
			width: right - left + (RULED + SPARE) * cm,
			height: foot - top + (HEAD + TOOLS) * cm,
		},
		screen,
	);
}

/** Return the smallest view of the screen's shape that holds another, centred. */
export function shaped(view: View, screen: { width: number; height: number }): View {
	const shape = screen.width / Math.max(screen.height, 1);
	if (view.width / view.height < shape) {
		const width = view.height * shape;
		return { ...view, x: view.x - (width - view.width) / 2, width };
	}
	const height = view.width / shape;
	return { ...view, y: view.y - (height - view.height) / 2, height };
}

/** cm. How narrow and how wide a part of the table is shown. */
const SHOWN: Pair = [4, 600];

/** Return the view brought nearer (factor < 1) or further about a point; it stays between the narrowest and the widest. */
export function zoomed(view: View, factor: number, about: Pair, [narrowest, widest] = SHOWN): View {
	const width = Math.min(Math.max(view.width * factor, narrowest), widest);
	const f = width / view.width;
	return {
		x: about[0] - (about[0] - view.x) * f,
		y: about[1] - (about[1] - view.y) * f,
		width,
		height: view.height * f,
	};
}

/** Return a curve of control points as SVG path data (y up; the scene flips it once). */
export function curvePath(points: readonly (readonly number[])[], move = true): string {
	const [first, ...rest] = points;
	if (!first) return '';
	let path = move ? `M${first[0]} ${first[1]}` : '';
	if (points.length === 2) return `${path}L${rest[0]![0]} ${rest[0]![1]}`;
	for (let i = 0; i + 2 < rest.length; i += 3) {
		path += `C${[rest[i]!, rest[i + 1]!, rest[i + 2]!].map((p) => `${p[0]} ${p[1]}`).join(' ')}`;
	}
	return path;
}

/** Return a ring of edges as one closed path. */
export function ringPath(edges: Edge[]): string {
	return edges.map((edge, i) => curvePath(edge.curve, i === 0)).join('') + 'Z';
}

/** Return a polyline as path data. */
export function linePath(points: readonly (readonly number[])[], closed = false): string {
	return points.map((p, i) => `${i ? 'L' : 'M'}${p[0]} ${p[1]}`).join('') + (closed ? 'Z' : '');
}

/** Return the middle control of an edge, good enough to hang a figure on. */
export function middle(edge: Edge): Pair {
	const n = edge.curve.length;
	if (n === 2) return mean(edge.curve[0] as Pair, edge.curve[1] as Pair);
	if (n > 4) return edge.curve[Math.floor(n / 2)] as Pair;
	const [a, b, c, d] = edge.curve as Pair[];
	return [(a![0] + 3 * b![0] + 3 * c![0] + d![0]) / 8, (a![1] + 3 * b![1] + 3 * c![1] + d![1]) / 8];
}

function mean(a: Pair, b: Pair): Pair {
	return [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
}

export interface Tick {
	at: number;
	label: string;
	size: 0 | 1 | 2;
}

/** Return the ticks of a true rule between two places, in cm or inches, no denser than they can be read. */
export function ticks(from: number, to: number, unit: 'cm' | 'in', pixelsPerCm: number): Tick[] {
	const step = unit === 'cm' ? 1 : 2.54;
	const every = [1, 5, 10, 50].find((n) => n * step * pixelsPerCm >= 34) ?? 100;
	const fine = [1, 5, 10].find((n) => n * step * pixelsPerCm >= 5) ?? 50;
	const found: Tick[] = [];
	for (let n = Math.ceil(from / step / fine) * fine; n * step <= to; n += fine) {
		const labelled = n % every === 0;
		found.push({ at: n * step, label: labelled ? String(n) : '', size: labelled ? 2 : n % 5 === 0 ? 1 : 0 });
	}
	return found;
}
