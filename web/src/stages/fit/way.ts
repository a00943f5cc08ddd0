/** The way through a fitting, one thing at a time: before it goes on, what is asked again, the movements, the pins. */
import type { Muslin, Round } from '../../lib/api/client';

export const PREPARE = 'prepare';
export const PINS = 'pins';
const ASK = 'ask:';
const MOVE = 'move:';

/** Return the places of a fitting, in their order. */
export function placesOf(muslin: Pick<Muslin, 'movements'>, round: Pick<Round, 'asks'>): string[] {
	return [
		PREPARE,
		...round.asks.map((finding) => ASK + finding.uid),
		...muslin.movements.map((movement) => MOVE + movement.key),
		PINS,
	];
}

/** Return the earlier finding that is asked about at a place; null at any other. */
export function askedAt(place: string): string | null {
	return place.startsWith(ASK) ? place.slice(ASK.length) : null;
}

/** Return the movement that is made at a place; null at any other. */
export function movementAt(place: string): string | null {
	return place.startsWith(MOVE) ? place.slice(MOVE.length) : null;
}

/** Return the place so many on from another, no further than the first and the last; the first where it is none of them. */
export function onFrom(places: readonly string[], place: string, by: number): string {
	const at = places.indexOf(place);
	return places[at < 0 ? 0 : Math.min(Math.max(at + by, 0), places.length - 1)]!;
}
