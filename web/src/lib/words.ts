/** Names of the pattern in the maker's words. */

/** Return 'back armhole' for `back.armhole`; what a step made is called without the step's own name. */
export function lineName(lineage: string): string {
	return lineage
		.replace(/^s-?[0-9a-f]{10}(\.\d+)*\.|_s-?[0-9a-f]{10}$/, '')
		.replaceAll('.', ' ')
		.replaceAll('_', ' ');
}

/** Return a rule as it is written on paper: 'back neck width × neck rise share'. */
export function inWords(formula: string): string {
	return formula.replaceAll('_', ' ').replaceAll('*', '×').replaceAll(' / ', ' ÷ ');
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

export const OUTCOMES: Record<string, string> = {
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
