/** Sheets of tracing paper: a muslin as cut, the pattern as it is now, a remedy on trial, the draft from another sheet. */
import type { Job, PaperAsked, Piece, Plan } from '../../lib/api/client';

export const NOW = 'now';
/** cm. Lines no further apart than a pencil's width lie on each other. */
export const PENCIL_WIDTH = 0.05;

export interface Paper {
	/** As it stands in the address: `muslin-2`, `sheet-3`, `trial-<finding>-<remedy>`, `now`. */
	name: string;
	title: string;
	/** What it lies with in the list: the finding that a trial is a remedy of. */
	group: string;
	/** The number of its muslin, for its pencil. */
	muslin: number | null;
}

/** Return the sheets that a job has, in the order in which they came: muslins, now, drafts from other measures, then trials. */
export function papersOf(
	job: Pick<Job, 'rounds' | 'sheet'>,
	sheets: readonly number[],
	planned: Pick<Plan, 'order'>['order'] = [],
): Paper[] {
	return [
		...job.rounds.map(({ number }) => ({
			name: `muslin-${number}`,
			title: `muslin ${number}, as cut`,
			group: '',
			muslin: number,
		})),
		{ name: NOW, title: 'now', group: '', muslin: null },
		...sheets
			.filter((number) => number !== job.sheet.number)
			.map((number) => ({
				name: `sheet-${number}`,
				title: `drafted from sheet ${number}`,
				group: '',
				muslin: null,
			})),
		...planned.flatMap(({ finding, seen, ways }) =>
			ways
				.filter((way) => !way.refused)
				.map((way) => ({
					name: `trial-${finding}-${way.remedy}`,
					title: `trial: ${way.title.toLowerCase()}`,
					group: seen,
					muslin: null,
				})),
		),
	];
}

/** Return what is asked of the server for a sheet of paper of a name. */
export function askedFor(name: string): PaperAsked {
	const [kind, ...rest] = name.split('-');
	if (kind === 'trial') return { trial: { finding: rest.slice(0, -1).join('-'), remedy: rest.at(-1) ?? '' } };
	return kind === 'muslin' ? { muslin: Number(rest[0]) } : kind === 'sheet' ? { sheet: Number(rest[0]) } : {};
}

/** Return the sheet so many on from one, around at the ends, the other one left out. */
export function turned(papers: readonly Paper[], name: string, by: number, other: string): string {
	const can = papers.filter((paper) => paper.name !== other);
	const at = can.findIndex((paper) => paper.name === name);
	return can[(at + by + can.length) % can.length]?.name ?? name;
}

/** Return the corners of a piece at which two of its lines meet: where sheets can be held. */
export function cornersOf(piece: Piece | undefined): string[] {
	return piece
		? [...new Set(piece.edges.filter((e) => e.role !== 'dart_leg').map((edge) => edge.start))]
		: [];
}

/** Return what a corner is called: the lines that meet there; at a dart's mouth there is one. */
export function cornerName(
	piece: Piece | undefined,
	corner: string,
	named: (line: string) => string,
): string {
	const lines = linesAt(piece, corner).map(named);
	return lines.length > 1 ? lines.join(' and ') : `${lines[0] ?? corner}, at a dart`;
}

/** Return the lines of a piece that begin or end at a corner. */
export function linesAt(piece: Piece | undefined, corner: string): string[] {
	const there = piece?.edges.filter((e) => e.role !== 'dart_leg' && [e.start, e.end].includes(corner)) ?? [];
	return [...new Set(there.map((edge) => edge.lineage))];
}

/** Return sheets by what they lie with in the list: those that lie by themselves, then the trials of each finding. */
export function grouped(papers: readonly Paper[]): [string, Paper[]][] {
	const groups = new Map<string, Paper[]>([['', []]]);
	for (const paper of papers) groups.set(paper.group, [...(groups.get(paper.group) ?? []), paper]);
	return [...groups];
}
