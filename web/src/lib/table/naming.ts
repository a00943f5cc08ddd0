/** Where a piece's name stands: inside, clear of every line; smaller where it is narrow; else beside, with a leader. */
import type { Piece } from '../api/client';
import { bounds, flattened, NAMED, type Pair, type Placed, type View } from './view';

/** Pixels. Sizes of a name, the largest that fits is taken; below the last it cannot be read. */
const SIZES = [15, 13, 11];
/** The width of a letter, and the height of a line, as shares of the size. */
const LETTER = 0.52;
const LEADING = 1.2;
/** Pixels kept free around a name. */
const CLEAR = 3;
/** Pixels beside all pieces in which a name can still be read. */
const MARGIN = 10;
/** Pixels between a piece and a name beside it. */
const NEAR = 3;
/** Places that are tried across and down a piece. */
const TRIED = 14;

export interface Name {
	words: string[];
	/** The upper left corner, in the pattern's frame, y up. */
	at: Pair;
	/** Pixels. */
	size: number;
	/** From a name that stands outside to its piece. */
	leader: [Pair, Pair] | null;
}

type Segment = [Pair, Pair];

interface Box {
	left: number;
	right: number;
	foot: number;
	head: number;
}

/** Return the lines of a piece's name: the title, a line for each of its parts, since a panel is narrow; how it is cut. */
export function wordsOf(piece: Piece): string[] {
	const cut = piece.on_fold ? 'on the fold' : piece.cut === 2 ? 'cut a pair' : `cut ${piece.cut}`;
	const times = piece.on_fold && piece.cut > 1 ? `, ${piece.cut} times` : '';
	return [...piece.title.split(', '), cut + times];
}

/** Return where the names of all pieces on the table stand, by piece; a name outside keeps off pieces and other names. */
export function namesOn(layout: Placed[], perPixel: number): Map<Piece, Name> {
	const taken = layout.map(({ piece, dx, dy }) => moved(bounds(piece), dx, dy));
	const seen: Box = {
		left: Math.min(...taken.map((box) => box.x)) - MARGIN * perPixel,
		right: Math.max(...taken.map((box) => box.x + box.width)) + MARGIN * perPixel,
		foot: Math.min(...taken.map((box) => box.y)) - NAMED * perPixel,
		head: Math.max(...taken.map((box) => box.y + box.height)) + NAMED * perPixel,
	};
	return new Map(
		layout.map(({ piece, dx, dy }, i) => {
			const words = wordsOf(piece);
			const within = nameWithin(piece, words, perPixel);
			if (within) return [piece, within];
			const others = taken.filter((_, j) => j !== i).map((box) => moved(box, -dx, -dy));
			const own: Box = {
				left: seen.left - dx,
				right: seen.right - dx,
				foot: seen.foot - dy,
				head: seen.head - dy,
			};
			const name = nameOutside(piece, words, perPixel, others, own);
			const { wide, high } = extent(name.words, name.size * perPixel, perPixel);
			const box = { x: name.at[0], y: name.at[1] - high, width: wide, height: high };
			taken.push(moved(box, dx, dy));
			return [piece, name];
		}),
	);
}

function moved(box: View, dx: number, dy: number): View {
	return { ...box, x: box.x + dx, y: box.y + dy };
}

/** Names within their pieces, kept while a piece and the scale stay: of a live edit most do. */
const within = new WeakMap<Piece, { perPixel: number; name: Name | null }>();

function nameWithin(piece: Piece, words: string[], perPixel: number): Name | null {
	const known = within.get(piece);
	if (known?.perPixel === perPixel) return known.name;
	const name = foundWithin(piece, words, perPixel);
	within.set(piece, { perPixel, name });
	return name;
}

/**
 * Return where a name stands within its piece, clear of every line; null where it does not fit.
 *
 * @param words its lines of text; where they are too wide, each word stands on a line of its own.
 * @param perPixel cm a pixel.
 */
function foundWithin(piece: Piece, words: string[], perPixel: number): Name | null {
	const ring = outline(piece);
	const lines = [...segments(ring, true), ...drawnWithin(piece)];
	const box = bounds(piece);
	const wanted = piece.grain[1] as Pair;
	const narrow = [...words.slice(0, -1).flatMap((line) => line.split(' ')), ...words.slice(-1)];
	for (const set of [words, narrow]) {
		for (const size of SIZES) {
			const { wide, high } = extent(set, size * perPixel, perPixel);
			const spot = nearest(box, wide, high, wanted, (at) => {
				const room = boxAt(at, wide, high);
				const middle: Pair = [(room.left + room.right) / 2, (room.foot + room.head) / 2];
				return inside(ring, middle) && !lines.some((line) => meets(line, room));
			});
			const at = spot && ([spot[0] + CLEAR * perPixel, spot[1] - CLEAR * perPixel] as Pair);
			if (at) return { words: set, at, size, leader: null };
		}
	}
	return null;
}

/**
 * Return a name beside its piece: at the first place that is free, near before far, where it can within what is seen.
 *
 * @param others boxes of what lies there already, in the piece's frame.
 * @param seen how far the table is seen, in the piece's frame.
 */
function nameOutside(piece: Piece, words: string[], perPixel: number, others: View[], seen: Box): Name {
	const ring = outline(piece);
	const size = SIZES.at(-1)!;
	const { wide, high } = extent(words, size * perPixel, perPixel);
	const places = placesBeside(bounds(piece), wide, high, NEAR * perPixel);
	const isFree = ({ at }: Place): boolean => !others.some((other) => overlap(boxAt(at, wide, high), other));
	const isBeside = ({ at }: Place): boolean => at[0] >= seen.left && at[0] + wide <= seen.right;
	const isSeen = (place: Place): boolean =>
		isBeside(place) && place.at[1] <= seen.head && place.at[1] - high >= seen.foot;
	const free = places.filter(isFree);
	const { at, end } = free.find(isSeen) ?? free.find(isBeside) ?? free[0] ?? places[0]!;
	const near = ring.reduce((best, p) => (apart(p, end) < apart(best, end) ? p : best), ring[0]!);
	return { words, at, size, leader: [end, near] };
}

/** The upper left corner of a name, and where its leader begins. */
interface Place {
	at: Pair;
	end: Pair;
}

/** Names stand so many of their own heights away at most, and are shifted along the piece by these shares of their size. */
const FARTHEST = 4;
const SHIFTS = [0, -0.6, 0.6, -1.2, 1.2, -1.8, 1.8];

/** Return places right, left, below and above a box, the nearest first. */
function placesBeside(box: View, wide: number, high: number, off: number): Place[] {
	const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
	const [right, head] = [box.x + box.width, box.y + box.height];
	const found: Place[] = [];
	for (let step = 0; step < FARTHEST; step++) {
		const away = off + step * high;
		for (const shift of SHIFTS) {
			const [across, up] = [x + shift * wide, y + shift * high];
			found.push(
				{ at: [right + away, up + high / 2], end: [right + away, up] },
				{ at: [box.x - away - wide, up + high / 2], end: [box.x - away, up] },
				{ at: [across - wide / 2, box.y - away], end: [across, box.y - away] },
				{ at: [across - wide / 2, head + away + high], end: [across, head + away] },
			);
		}
	}
	return found;
}

function apart(a: Pair, b: Pair): number {
	return Math.hypot(a[0] - b[0], a[1] - b[1]);
}

function extent(words: string[], size: number, perPixel: number): { wide: number; high: number } {
	const longest = Math.max(...words.map((line) => line.length));
	return {
		wide: longest * LETTER * size + 2 * CLEAR * perPixel,
		high: words.length * LEADING * size + 2 * CLEAR * perPixel,
	};
}

/** Return the place nearest to the one wanted at which a name is free, or null. */
function nearest(
	box: View,
	wide: number,
	high: number,
	wanted: Pair,
	free: (at: Pair) => boolean,
): Pair | null {
	if (wide > box.width || high > box.height) return null;
	const places: [number, Pair][] = [];
	for (let i = 0; i <= TRIED; i++) {
		for (let j = 0; j <= TRIED; j++) {
			const at: Pair = [
				box.x + ((box.width - wide) * i) / TRIED,
				box.y + box.height - ((box.height - high) * j) / TRIED,
			];
			places.push([apart(at, wanted), at]);
		}
	}
	places.sort((a, b) => a[0] - b[0]);
	return places.find(([, at]) => free(at))?.[1] ?? null;
}

function boxAt(at: Pair, wide: number, high: number): Box {
	return { left: at[0], right: at[0] + wide, head: at[1], foot: at[1] - high };
}

function overlap(box: Box, other: View): boolean {
	return (
		box.left < other.x + other.width &&
		other.x < box.right &&
		box.foot < other.y + other.height &&
		other.y < box.head
	);
}

function outline(piece: Piece): Pair[] {
	return piece.edges.flatMap((edge) => flattened(edge.curve as Pair[]).slice(0, -1));
}

/** Return what is drawn within a piece, as segments: darts, levels, grain, notches, marks. */
function drawnWithin(piece: Piece): Segment[] {
	const chains = [
		...piece.lines.map((line) => line.points as Pair[]),
		piece.grain as Pair[],
		...piece.darts.map((dart) => dart.legs as Pair[]),
		...(piece.notches as Pair[][]),
	];
	const marks = Object.values(piece.marks).map((at): Segment => [at as Pair, at as Pair]);
	const diamonds = piece.diamonds.flatMap((diamond) => segments(diamond.outline as Pair[], true));
	return [...chains.flatMap((chain) => segments(chain, false)), ...diamonds, ...marks];
}

function segments(points: Pair[], closed: boolean): Segment[] {
	const found = points.slice(1).map((point, i): Segment => [points[i]!, point]);
	return closed && points.length > 2 ? [...found, [points.at(-1)!, points[0]!]] : found;
}

/** Whether a segment touches a box: it is cut to the box, side by side. */
function meets([a, b]: Segment, box: Box): boolean {
	let from = 0;
	let to = 1;
	const cuts: [number, number, number][] = [
		[b[0] - a[0], box.left - a[0], box.right - a[0]],
		[b[1] - a[1], box.foot - a[1], box.head - a[1]],
	];
	for (const [run, low, high] of cuts) {
		if (run === 0) {
			if (low > 0 || high < 0) return false;
			continue;
		}
		const [near, far] = run > 0 ? [low / run, high / run] : [high / run, low / run];
		from = Math.max(from, near);
		to = Math.min(to, far);
	}
	return from <= to;
}

function inside(ring: Pair[], [x, y]: Pair): boolean {
	let odd = false;
	for (const [a, b] of segments(ring, true)) {
		if (a[1] > y !== b[1] > y && x < a[0] + ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1])) odd = !odd;
	}
	return odd;
}
