/** Names of the pattern in the maker's words. */
import type { Outcome } from './api/client';
import { bare, names } from './desk/names.svelte';

/**
 * Return what a line, a dart, a seam or a piece is called: 'back armhole' for `back.armhole`. What the pattern has no
 * title for is called by what its name ends with; plain words stay themselves.
 */
export function lineName(name: string): string {
	const titles = names.titles;
	const title = titles[name] ?? titles[bare(name)];
	if (title) return title;
	const [first, ...rest] = bare(name).split('.');
	const known = Object.keys(titles);
	// Before anything is drawn nothing is known of parts: then a step's names are not there either.
	const isPart = rest.length === 1 && (!known.length || known.some((name) => name.startsWith(`${first}.`)));
	const words = isPart || !rest.length ? bare(name) : rest.at(-1)!;
	return words.replaceAll('.', ' ').replaceAll('_', ' ');
}

/** Return a date as it is read. */
export function day(text: string): string {
	return new Date(text).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
}

/** Return a time as it is read in the story. */
export function moment(text: string): string {
	return new Date(text).toLocaleString('en-GB', {
		day: 'numeric',
		month: 'short',
		hour: '2-digit',
		minute: '2-digit',
	});
}

const MINUTES = 60;

/** Return minutes as hours are told: `1 h 35 min`. */
export function hours(minutes: number): string {
	const size = Math.abs(minutes);
	const parts = [
		size >= MINUTES ? `${Math.floor(size / MINUTES)} h` : '',
		size % MINUTES || size < MINUTES ? `${size % MINUTES} min` : '',
	];
	return (minutes < 0 ? '−' : '') + parts.filter(Boolean).join(' ');
}

export const OUTCOMES: Record<Outcome, string> = {
	solved: 'solved',
	better: 'better',
	same: 'the same',
	worse: 'worse',
	not_looked_at: 'not looked at',
};

/** The pencil of a round: its own colour, by number. */
export function pencil(round: number): string {
	return `var(--pencil-${((round - 1) % 4) + 1})`;
}

/** What a line is called where it is meant on both halves, whether they differ or not. */
export function lineOnBoth(name: string): string {
	return lineName(name).replace(/^(left|right) /, '');
}
