/** Marks as the pencil makes them, and how they are typed. */
import type { Mark } from '../api/client';

export const KINDS = ['dash', 'cross', 'dot', 'notch', 'slash'] as const;
export type Kind = (typeof KINDS)[number];

/** What each mark is for, in a few words. */
export const MEANINGS: Record<Kind, string> = {
	dash: 'where a centre line ends',
	cross: 'where two lines meet',
	dot: 'on a line',
	notch: 'on a line, where it is matched',
	slash: 'cut to let it turn',
};

/** Return the lines that a text names: `neck + panel`; two at most, in plain letters. */
export function linesIn(text: string): string[] {
	return text
		.split('+')
		.map((line) => line.trim().toLowerCase().replace(/\s+/g, '_').slice(0, 60))
		.filter(Boolean)
		.slice(0, 2);
}

/** Return the lines of a mark as they are typed. */
export function linesText(mark: Pick<Mark, 'lines'>): string {
	return mark.lines.join('+');
}
