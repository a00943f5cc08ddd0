/** Which findings are offered: those that this garment can show, by words, or at the place that was pointed at. */
import type { Applies, Kind, Piece } from '../../lib/api/client';
import type { Subject } from '../../lib/table/picking';

/** Return the kinds that a garment can show. */
export function applicable(kinds: readonly Kind[], applies: readonly Applies[]): Kind[] {
	const can = new Set(applies.filter((one) => !one.missing.length).map((one) => one.key));
	return kinds.filter((kind) => can.has(kind.key));
}

/** Return those kinds in whose words all that is typed is found. */
export function searched(kinds: readonly Kind[], typed: string): Kind[] {
	const wanted = typed.toLowerCase().split(/\s+/).filter(Boolean);
	return kinds.filter((kind) => {
		const text = `${kind.seen} ${kind.cause} ${kind.words}`.toLowerCase();
		return wanted.every((word) => text.includes(word));
	});
}

/** Return those kinds that can lie at what was pointed at: a line of a role, or the piece with its zone. */
export function at(kinds: readonly Kind[], subject: Subject | null, pieces: readonly Piece[]): Kind[] {
	const piece = pieces.find((one) => one.name === subject?.piece);
	if (!subject || !piece) return [...kinds];
	const role = piece.edges.find((edge) => edge.lineage === subject.name)?.role ?? '';
	return kinds.filter((kind) =>
		kind.places.some(
			(place) => (!place.zone || place.zone === piece.zone) && (!place.role || place.role === role),
		),
	);
}

/** Return kinds under the parts of the garment that they are listed under. */
export function grouped(kinds: readonly Kind[]): [string, Kind[]][] {
	const groups = new Map<string, Kind[]>();
	for (const kind of kinds) groups.set(kind.group, [...(groups.get(kind.group) ?? []), kind]);
	return [...groups];
}
