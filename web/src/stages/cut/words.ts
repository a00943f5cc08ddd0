/** What the cutting table calls its folds and uses, and lengths as shops sell them. */
import type { ClothFold } from '../../lib/api/client';
import { type Unit } from '../../lib/units.svelte';

export const FOLDS: [ClothFold, string][] = [
	['open', 'not: opened out'],
	['lengthwise', 'lengthwise, selvedge to selvedge'],
	['both_to_middle', 'both selvedges inwards'],
	['crosswise', 'crosswise'],
	['four_layers', 'in four'],
];

const CM_PER_YARD = 91.44;
/** A length within this (cm) of what is sold needs no more of it. */
const HAIR = 1e-6;
const EIGHTHS = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞'];

/** Return a length in cm as shops sell it, rounded up: metres in steps of 10 cm, yards in eighths. */
export function sold(cm: number, unit: Unit): string {
	if (unit === 'cm') return `${(Math.ceil((cm - HAIR) / 10) / 10).toFixed(2)} m`;
	const eighths = Math.ceil(((cm - HAIR) / CM_PER_YARD) * 8);
	const whole = Math.floor(eighths / 8);
	const part = EIGHTHS[eighths % 8]!;
	return `${whole || !part ? whole : ''}${part} yd`;
}

/** Return a time in seconds as one says it. */
export function minutes(seconds: number): string {
	const whole = Math.max(1, Math.round(seconds));
	if (whole < 60) return `${whole} s`;
	return `${Math.floor(whole / 60)} min ${whole % 60} s`;
}
