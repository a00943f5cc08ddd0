import { expect, test } from 'vitest';
import { after, againAt, before, DONE, isAgain, PREPARE, symbolAt, type Way } from './way';

const way: Way = {
	order: ['height', 'bust_girth', 'waist_girth', 'hip_girth'],
	twice: ['bust_girth', 'hip_girth'],
};

function walked(from: string, on: Way): string[] {
	const places = [from];
	while (places.at(-1) !== DONE && places.length < 50) places.push(after(places.at(-1)!, on));
	return places;
}

test('the way goes through every measure once, then through what is read again, to the end', () => {
	expect(walked(PREPARE, way)).toEqual([
		PREPARE,
		'height',
		'bust_girth',
		'waist_girth',
		'hip_girth',
		againAt('bust_girth'),
		againAt('hip_girth'),
		DONE,
	]);
});

test('what has been read again meanwhile is not asked for a second time', () => {
	expect(after(againAt('bust_girth'), { ...way, twice: ['hip_girth'] })).toBe(againAt('hip_girth'));
	expect(after(againAt('bust_girth'), { ...way, twice: [] })).toBe(DONE);
	expect(after(againAt('hip_girth'), { ...way, twice: ['bust_girth', 'hip_girth'] })).toBe(DONE);
});

test('with nothing to read again the way ends after the last measure', () => {
	expect(after('hip_girth', { ...way, twice: [] })).toBe(DONE);
	expect(after(PREPARE, { order: [], twice: [] })).toBe(DONE);
	expect(after(DONE, way)).toBe(DONE);
});

test('going back leads over the measures to the preparation and stays there', () => {
	expect(before(DONE, way)).toBe('hip_girth');
	expect(before(againAt('bust_girth'), way)).toBe('hip_girth');
	expect(before('bust_girth', way)).toBe('height');
	expect(before('height', way)).toBe(PREPARE);
	expect(before(PREPARE, way)).toBe(PREPARE);
	expect(before(DONE, { order: [], twice: [] })).toBe(PREPARE);
});

test('a place names its measure', () => {
	expect(symbolAt(againAt('hip_girth'))).toBe('hip_girth');
	expect(symbolAt('hip_girth')).toBe('hip_girth');
	expect(symbolAt(PREPARE)).toBe('');
	expect(isAgain('hip_girth')).toBe(false);
});
