/** Where findings lie on the drawn body. */
import type { BodyDrawing, Kind } from '../../lib/api/client';

/** A place on the figure with the kinds that lie there. */
export interface Spot {
	x: number;
	y: number;
	kinds: Kind[];
}

/** cm. Kinds that lie nearer to each other share a spot: a fingertip covers as much. */
const TOGETHER = 5;

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

/** Return the spots of kinds on one side of the figure, those that lie close together as one. */
export function spotsOf(figure: BodyDrawing, kinds: readonly Kind[]): Spot[] {
	const spots: Spot[] = [];
	for (const kind of kinds) {
		const at = spotAt(figure, kind.level, kind.across);
		const near = spots.find((spot) => Math.hypot(spot.x - at.x, spot.y - at.y) < TOGETHER);
		if (near) near.kinds.push(kind);
		else spots.push({ ...at, kinds: [kind] });
	}
	return spots;
}
