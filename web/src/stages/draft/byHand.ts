/** The draft line by line: a line is drawn when the last sum that it depends on is known. */
import type { Piece, Sum } from '../../lib/api/client';

/** Return the sums at which a hand would stop, in the order of work: all but the measures. */
export function inOrder(sums: readonly Sum[]): Sum[] {
	return sums.filter((sum) => sum.group !== 'Measures');
}

/** Return the names of all lines and darts. */
export function linesOf(pieces: readonly Piece[]): string[] {
	const names = pieces.flatMap((piece) => [
		...piece.edges.filter((edge) => edge.role !== 'dart_leg').map((edge) => edge.lineage),
		...piece.darts.map((dart) => dart.name),
		...piece.diamonds.map((diamond) => diamond.name),
	]);
	return [...new Set(names)];
}

/** Return at which step each line can be drawn: the last that draws it; from the start where none does. */
function drawnAt(pieces: readonly Piece[], steps: readonly Sum[]): Map<string, number> {
	const last = new Map<string, number>();
	steps.forEach((step, i) => step.draws.forEach((name) => last.set(name, i)));
	return new Map(linesOf(pieces).map((name) => [name, last.get(name) ?? last.get(first(name)) ?? 0]));
}

/** A second or third dart is drawn with the first: `front.waist_dart_2` with `front.waist_dart`. */
function first(name: string): string {
	return name.replace(/_\d$/, '');
}

/** Return the lines that cannot be drawn yet at a step. */
export function hiddenAt(pieces: readonly Piece[], steps: readonly Sum[], at: number): Set<string> {
	return new Set([...drawnAt(pieces, steps)].filter(([, when]) => when > at).map(([name]) => name));
}

/** Return the lines that a step settles. */
export function settledBy(pieces: readonly Piece[], steps: readonly Sum[], at: number): string[] {
	return [...drawnAt(pieces, steps)].filter(([, when]) => when === at).map(([name]) => name);
}
