/** The unit that the person reads and types in, and lengths shown in it. Reading typed lengths is the core's. */

import { store } from './store';
import { lineName } from './words';

export type Unit = 'cm' | 'in';

const CM_PER_INCH = 2.54;
const SIXTEENTHS = 16;
const GLYPHS: Record<string, string> = {
	'1/4': '¼',
	'1/2': '½',
	'3/4': '¾',
	'1/8': '⅛',
	'3/8': '⅜',
	'5/8': '⅝',
	'7/8': '⅞',
};

function remembered(): Unit {
	return store.read('izett-unit') === 'in' ? 'in' : 'cm';
}

export const reading = $state<{ unit: Unit }>({ unit: remembered() });

export function readIn(unit: Unit): void {
	reading.unit = unit;
	store.write('izett-unit', unit);
}

/** A space at which a line is not broken: a number keeps its fraction and its unit. */
const KEPT = '\u00a0';

/** Return a length of `cm` centimetres as it is read: to 1 mm, or to 1/16 in as a proper fraction. */
export function show(cm: number, unit: Unit): string {
	const sign = cm < 0 ? '−' : '';
	const size = Math.abs(cm);
	if (unit === 'cm') {
		const tenths = Math.floor(Math.round(size * 1e9) / 1e8 + 0.5);
		return (tenths ? sign : '') + (tenths / 10).toFixed(1);
	}
	const parts = Math.floor(Math.round((size / CM_PER_INCH) * SIXTEENTHS * 1e9) / 1e9 + 0.5);
	if (parts === 0) return '0';
	const whole = Math.floor(parts / SIXTEENTHS);
	const rest = fraction(parts % SIXTEENTHS);
	if (!rest) return `${sign}${whole}`;
	if (!whole) return sign + rest;
	return sign + whole + (rest.length === 1 ? rest : KEPT + rest);
}

function fraction(parts: number): string {
	if (parts === 0) return '';
	let above = parts;
	let below = SIXTEENTHS;
	while (above % 2 === 0) {
		above /= 2;
		below /= 2;
	}
	return GLYPHS[`${above}/${below}`] ?? `${above}⁄${below}`;
}

/** Return a length with its unit. */
export function shown(cm: number, unit: Unit = reading.unit): string {
	return show(cm, unit) + KEPT + unit;
}

/** Return a length as text that can be typed back without loss of what is shown. */
export function typed(cm: number, unit: Unit): string {
	if (unit === 'cm') return String(Math.round(cm * 100) / 100);
	return show(cm, unit).replace('−', '-').replace(KEPT, ' ');
}

/** A length in a sentence of the core, in centimetres as it would write it. */
const QUANTITY = /⟦([−-]?[\d.]+) cm⟧/g;
/** A name in a sentence that was not told its title. */
/** A length in a sum: its number alone. */
const BARE = /⟦~([-−]?[0-9.]+)⟧/g;
const NAME = /⟦=([^⟧|]*)(?:\|([^⟧]*))?⟧/g;

/** Return a sentence of the core as it is kept in the record: its lengths in centimetres. */
export function plain(text: string): string {
	return spoken(text, 'cm').replaceAll(KEPT, ' ');
}

/** Return a sentence of the core with its lengths in the reader's unit. */
export function spoken(text: string, unit: Unit = reading.unit): string {
	return text
		.replace(QUANTITY, (_, cm: string) =>
			unit === 'cm' ? cm + KEPT + unit : shown(Number(cm.replace('−', '-')), unit),
		)
		.replace(BARE, (_, cm: string) => (unit === 'cm' ? cm : show(Number(cm.replace('−', '-')), unit)))
		.replace(NAME, (_, name: string, added?: string) => [lineName(name), added].filter(Boolean).join(' '));
}
