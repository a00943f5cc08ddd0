import { expect, test } from 'vitest';
import type { Finding, Movement } from '../../lib/api/client';
import { askedAt, movementAt, onFrom, PINS, placesOf, PREPARE } from './way';

const muslin = { movements: [{ key: 'stand' }, { key: 'sit' }] as Movement[] };
const round = { asks: [{ uid: 'f1' }] as Finding[] };

test('what was changed is looked at before anything new, and the pins come last', () => {
	const places = placesOf(muslin, round);
	expect(places.map((place) => askedAt(place) ?? movementAt(place) ?? place)).toEqual([
		PREPARE,
		'f1',
		'stand',
		'sit',
		PINS,
	]);
	expect(askedAt(places[2]!)).toBeNull();
	expect(movementAt(places[1]!)).toBeNull();
});

test('the way ends at both ends, and a place that is gone leads to its beginning', () => {
	const places = placesOf(muslin, round);
	expect(onFrom(places, PREPARE, -1)).toBe(PREPARE);
	expect(onFrom(places, PINS, 1)).toBe(PINS);
	expect(onFrom(places, PREPARE, 1)).toBe(places[1]);
	expect(onFrom(places, 'ask:gone', 1)).toBe(PREPARE);
});
