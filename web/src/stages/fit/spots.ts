/** Where a finding lies on the drawn body. */
import type { BodyDrawing } from '../../lib/api/client';

/** The body's level that a finding's level lies at; those that the body has no level for lie between two. */
const BETWEEN: Record<string, [string, string, number]> = {
	shoulder: ['neck', 'high_bust', 0.22],
	across: ['neck', 'high_bust', 0.6],
};

/** Return the spot (cm, y up) of a level, `across` of the way from the middle to the side. */
export function spotAt(figure: BodyDrawing, level: string, across: number): { x: number; y: number } {
	const levels = figure.levels;
	const [from, to, share] = BETWEEN[level] ?? [level, level, 0];
	const upper = levels[from] ?? levels.waist!;
	const lower = levels[to] ?? levels.waist!;
	const half = level in BETWEEN ? lower.half * 1.05 : upper.half;
	return { x: half * across, y: upper.y + (lower.y - upper.y) * share };
}
