import { expect, test } from 'vitest';
import { names } from './desk/names.svelte';
import { day, lineName, OUTCOMES, pencil } from './words';

test('lines are named in words', () => {
	expect(lineName('back.armhole')).toBe('back armhole');
	expect(lineName('front.bust_dart_2')).toBe('front bust dart 2');
	expect(lineName('any-name-at-all.1.princess_front')).toBe('princess front');
	names.titles = { 'front.neck': 'front neck', 'p1.yoke': 'yoke' };
	expect(lineName('p1.yoke')).toBe('yoke');
	expect(lineName('right:front.neck')).toBe('front neck');
	expect(lineName('front.bust')).toBe('front bust');
});

test('dates are read as a person reads them', () => {
	expect(day('2026-12-17')).toBe('17 Dec 2026');
});

test('each round has its own pencil, and the fifth begins again', () => {
	expect(new Set([1, 2, 3, 4].map(pencil)).size).toBe(4);
	expect(pencil(5)).toBe(pencil(1));
});

test('every outcome has words', () => {
	expect(Object.keys(OUTCOMES)).toEqual(['solved', 'better', 'same', 'worse', 'not_looked_at']);
});
