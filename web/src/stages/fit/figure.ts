/**
 * The fitting figure: a torso whose outline follows the wearer's own girths and lengths. It is a place to put findings
 * on, not a measure of anything: breadths are taken as fixed shares of the girths.
 */
import type { Sum } from '../../lib/api/client';

export type Level = 'neck' | 'shoulder' | 'across' | 'bust' | 'waist' | 'hip';

export interface Figure {
	/** Height above the waist (cm) and half breadth (cm) at each level. */
	levels: Record<Level, { y: number; half: number }>;
}

/** Half breadth as a share of the girth: a body is about a third as broad as it is around. Common practice. */
const HALF_BREADTH = { bust: 0.158, waist: 0.162, hip: 0.172, neck: 0.158 };
const USUAL = {
	bust_girth: 92,
	waist_girth: 74,
	hip_girth: 98,
	neck_girth: 37,
	back_waist_length: 41,
	shoulder_length: 12.5,
	apex_level: 17,
	back_neck_width: 7,
	back_slope: 20,
};

/** Return the figure of a draft's values; what is missing is drawn as usual. */
export function figureOf(sums: Sum[]): Figure {
	const values: Record<string, number> = { ...USUAL };
	for (const sum of sums) values[sum.symbol] = sum.value;
	const get = (symbol: keyof typeof USUAL): number => values[symbol]!;
	const nape = get('back_waist_length');
	const slope = (get('back_slope') * Math.PI) / 180;
	const hip = sums.some((s) => s.symbol === 'hip_girth') ? get('hip_girth') : get('waist_girth') * 1.28;
	return {
		levels: {
			neck: { y: nape + 2, half: get('neck_girth') * HALF_BREADTH.neck },
			shoulder: {
				y: nape + 2 - get('shoulder_length') * Math.sin(slope),
				half: get('back_neck_width') + get('shoulder_length') * Math.cos(slope),
			},
			across: { y: nape * 0.76, half: get('bust_girth') * 0.175 },
			bust: { y: get('apex_level'), half: get('bust_girth') * HALF_BREADTH.bust },
			waist: { y: 0, half: get('waist_girth') * HALF_BREADTH.waist },
			hip: { y: -20, half: hip * HALF_BREADTH.hip },
		},
	};
}

/** Return the right half's outline as path data, y up, from the neck down to the hip; `mirror` −1 draws the left. */
export function sidePath(figure: Figure, mirror: 1 | -1): string {
	const { neck, shoulder, bust, waist, hip } = figure.levels;
	const m = (x: number): number => mirror * x;
	const armpit = { x: Math.min(bust.half, shoulder.half - 1.5), y: bust.y + 5.5 };
	const elbow = { x: Math.max(bust.half, waist.half, shoulder.half - 2) + 3.2, y: 1 };
	const ARM = 7.5;
	return [
		`M${m(neck.half - 0.8)} ${neck.y + 8}`,
		`C${m(neck.half - 1)} ${neck.y + 3} ${m(neck.half - 0.4)} ${neck.y + 1} ${m(neck.half + 2)} ${neck.y - 0.8}`,
		`C${m(neck.half + 4)} ${neck.y - 1.8} ${m(shoulder.half - 5)} ${shoulder.y + 1.6} ${m(shoulder.half - 1)} ${shoulder.y + 0.4}`,
		`C${m(shoulder.half + 1.8)} ${shoulder.y - 0.6} ${m(shoulder.half + 3)} ${shoulder.y - 4} ${m(shoulder.half + 3.2)} ${shoulder.y - 8}`,
		`C${m(shoulder.half + 3.6)} ${shoulder.y - 16} ${m(elbow.x + ARM - 0.5)} ${elbow.y + 12} ${m(elbow.x + ARM)} ${elbow.y - 4}`,
		`M${m(elbow.x + 0.6)} ${elbow.y - 4}`,
		`C${m(elbow.x)} ${elbow.y + 8} ${m(armpit.x + 1.5)} ${armpit.y - 6} ${m(armpit.x)} ${armpit.y}`,
		`C${m(bust.half + 0.6)} ${bust.y + 2} ${m(bust.half + 0.2)} ${bust.y - 3} ${m(bust.half - 0.8)} ${bust.y - 5.5}`,
		`C${m(waist.half + (bust.half - waist.half) * 0.3)} ${bust.y * 0.4} ${m(waist.half)} 5 ${m(waist.half)} 0`,
		`C${m(waist.half)} -6 ${m(hip.half)} ${hip.y + 9} ${m(hip.half)} ${hip.y}`,
	].join('');
}

/** Return where a finding's spot lies on the figure (cm, y up). */
export function spotAt(figure: Figure, level: string, across: number): { x: number; y: number } {
	const at = figure.levels[level as Level] ?? figure.levels.waist;
	return { x: at.half * across, y: at.y };
}
