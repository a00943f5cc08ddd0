/** Finish steps of one thing that is pointed at: a line's turning and corners, what is said of a piece. */
import type { Piece, Recipe, Step } from '../../lib/api/client';
import { bare } from '../../lib/desk/names.svelte';
import { newStep, withoutStep, withStep } from '../../lib/desk/recipe';

export type CornerKind = 'mitre' | 'square' | 'folded';
export type Lie = 'straight' | 'bias' | 'across';

export interface PieceSaid {
	cloth: string;
	cut: number;
	free: boolean;
	says: string;
	whole: boolean;
	lie: Lie;
}

const AS_USUAL: PieceSaid = { cloth: '', cut: 0, free: false, says: '', whole: false, lie: 'straight' };

/** Steps that mark something on a line. */
const MARKS = new Set(['mark_place', 'button_places', 'bone_channel', 'add_tie']);

export function isMark(kind: string): boolean {
	return MARKS.has(kind);
}

/** The line that a mark lies on or beside. */
export function lineOfMark(params: Step['params']): string {
	const place = (params.at ?? params.line) as { along?: string } | undefined;
	return place?.along ?? '';
}

/** The last step of a kind that is about a thing. */
function stepAbout(
	recipe: Recipe,
	kind: string,
	about: (params: Step['params']) => boolean,
): Step | undefined {
	return recipe.steps.filter((step) => step.kind === kind && step.on && about(step.params)).at(-1);
}

const onLine = (line: string) => (params: Step['params']) => params.line === line;
const atEnd = (line: string, atStart: boolean) => (params: Step['params']) =>
	params.line === line && (params.at_start ?? false) === atStart;
const speaksOf = (piece: string) => (params: Step['params']) =>
	(params.pieces as string[] | undefined)?.includes(piece) ?? false;
const ofPiece = (piece: string) => (params: Step['params']) =>
	speaksOf(piece)(params) && (params.pieces as string[]).length === 1;

/** Return the recipe with a step about a thing: changed, made, or taken out where it says nothing. */
function withAbout(
	recipe: Recipe,
	kind: string,
	about: (params: Step['params']) => boolean,
	params: Step['params'] | null,
): Recipe {
	const step = stepAbout(recipe, kind, about);
	if (!params) return step ? withoutStep(recipe, step.uid) : recipe;
	return withStep(recipe, step ? { ...step, params } : newStep(kind, params));
}

/** How a line is turned, or null. */
export function turningOf(recipe: Recipe, line: string): { depth: number; under: number } | null {
	const params = stepAbout(recipe, 'turn_edge', onLine(line))?.params;
	return params ? { depth: Number(params.depth ?? 4), under: Number(params.under ?? 1) } : null;
}

export function withTurning(
	recipe: Recipe,
	line: string,
	turning: { depth: number; under: number } | null,
): Recipe {
	return withAbout(recipe, 'turn_edge', onLine(line), turning && { line, ...turning });
}

/** How the corner at an end of a line is cut; null as usual. */
export function cornerOf(recipe: Recipe, line: string, atStart: boolean): CornerKind | null {
	const step = stepAbout(recipe, 'cut_corner', atEnd(line, atStart));
	return step ? ((step.params.kind ?? 'square') as CornerKind) : null;
}

export function withCorner(recipe: Recipe, line: string, atStart: boolean, kind: CornerKind | null): Recipe {
	const params = kind && { line, at_start: atStart, kind };
	return withAbout(recipe, 'cut_corner', atEnd(line, atStart), params);
}

/** What is said of a piece, by the last step that speaks of it: alone, or of others too. */
export function saidOf(recipe: Recipe, piece: string): PieceSaid {
	const params = stepAbout(recipe, 'ready_piece', speaksOf(piece))?.params ?? {};
	const known = Object.entries(params).filter(([name]) => name in AS_USUAL);
	return { ...AS_USUAL, ...Object.fromEntries(known) };
}

/** Say something of one piece: where a step speaks of several, in a step of its own after it. */
export function withSaid(recipe: Recipe, piece: string, said: PieceSaid): Recipe {
	const params = { pieces: [piece], ...said };
	const last = stepAbout(recipe, 'ready_piece', speaksOf(piece));
	if (last && !ofPiece(piece)(last.params)) return withStep(recipe, newStep('ready_piece', params));
	const before = withAbout(recipe, 'ready_piece', ofPiece(piece), null);
	const usual = JSON.stringify(said) === JSON.stringify(AS_USUAL);
	return usual && JSON.stringify(saidOf(before, piece)) === JSON.stringify(said)
		? before
		: withAbout(recipe, 'ready_piece', ofPiece(piece), params);
}

/** The lines that a line of a piece meets at its two ends: where it begins, and where it ends. */
export function neighbours(piece: Piece, line: string): [string, string] {
	const ring = piece.edges.filter((edge) => edge.role !== 'dart_leg');
	const own = (i: number): boolean => bare(ring[(i + ring.length) % ring.length]!.lineage) === line;
	const first = ring.findIndex((_, i) => own(i) && !own(i - 1));
	if (first < 0) return ['', ''];
	let last = first;
	while (own(last + 1) && last < first + ring.length) last += 1;
	const name = (i: number): string => bare(ring[(i + ring.length) % ring.length]!.lineage);
	return [name(first - 1), name(last + 1)];
}
