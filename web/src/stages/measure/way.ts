/**
 * The way through a guided taking: what is prepared, the measures in the order of taking, what is to be read once more,
 * and the end. A place on it is a text, so that it can be kept with the sheet: a measure's symbol, `again:symbol`, or
 * one of the two ends.
 */

export const PREPARE = 'prepare';
export const DONE = 'done';
const AGAIN = 'again:';

export interface Way {
	/** The measures on the way, in the order of taking. */
	order: string[];
	/** Those that are to be read once more now. */
	twice: string[];
}

/** Return the place at which a measure is read once more. */
export function againAt(symbol: string): string {
	return AGAIN + symbol;
}

/** Return whether a measure is read once more at a place. */
export function isAgain(place: string): boolean {
	return place.startsWith(AGAIN);
}

/** Return the measure of a place; '' at the ends. */
export function symbolAt(place: string): string {
	if (place === PREPARE || place === DONE) return '';
	return isAgain(place) ? place.slice(AGAIN.length) : place;
}

/** Return the place after one: the next measure, then what is to be read once more, each once, then the end. */
export function after(place: string, { order, twice }: Way): string {
	if (place === DONE) return DONE;
	if (place === PREPARE) return order[0] ?? DONE;
	const symbol = symbolAt(place);
	if (!isAgain(place)) {
		const next = order[order.indexOf(symbol) + 1];
		if (next) return next;
	}
	const passed = isAgain(place) ? order.indexOf(symbol) : -1;
	const once = twice.find((s) => order.indexOf(s) > passed && s !== symbol);
	return once ? againAt(once) : DONE;
}

/** Return the place before one. */
export function before(place: string, { order }: Way): string {
	if (place === PREPARE) return PREPARE;
	if (place === DONE || isAgain(place)) return order.at(-1) ?? PREPARE;
	return order[order.indexOf(symbolAt(place)) - 1] ?? PREPARE;
}
