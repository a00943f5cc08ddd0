import { expect, test } from 'vitest';
import type { Kind, Piece } from '../../lib/api/client';
import { applicable, at, grouped, searched } from './kinds';

function kind(key: string, more: Partial<Kind> = {}): Kind {
	return {
		key,
		marks: false,
		seen: key,
		cause: '',
		words: '',
		group: 'Bodice',
		view: 'front',
		across: 0,
		level: 'bust',
		movement: 'stand',
		one_half: false,
		normal: '',
		places: [],
		inputs: [],
		...more,
	};
}

test('only what a garment can show is offered', () => {
	const kinds = [kind('a'), kind('b')];
	const applies = [
		{ key: 'a', missing: [], inputs: [] },
		{ key: 'b', missing: ['a sleeve'], inputs: [] },
	];
	expect(applicable(kinds, applies).map((k) => k.key)).toEqual(['a']);
});

test('a finding is looked for by any of its words, in any order', () => {
	const kinds = [kind('a', { seen: 'Folds under the nape' }), kind('b', { cause: 'a hollow back' })];
	expect(searched(kinds, 'nape fold').map((k) => k.key)).toEqual(['a']);
	expect(searched(kinds, 'BACK').map((k) => k.key)).toEqual(['b']);
	expect(searched(kinds, '  ')).toHaveLength(2);
});

test('pointing at a line offers what lies on lines of its role and zone', () => {
	const kinds = [
		kind('neck', { places: [{ zone: '', role: 'neck' }] }),
		kind('back', { places: [{ zone: 'back', role: 'neck' }] }),
		kind('front', { places: [{ zone: 'front', role: '' }] }),
	];
	const piece = {
		name: 'p',
		zone: 'front',
		edges: [{ lineage: 'front.neck', role: 'neck' }],
	} as unknown as Piece;
	const subject = { kind: 'line' as const, name: 'front.neck', piece: 'p', fraction: 0.5 };
	expect(at(kinds, subject, [piece]).map((k) => k.key)).toEqual(['neck', 'front']);
	expect(at(kinds, null, [piece])).toHaveLength(3);
});

test('kinds are listed under the part of the garment', () => {
	const found = grouped([kind('a'), kind('b', { group: 'Sleeve' }), kind('c')]);
	expect(found.map(([title, all]) => [title, all.length])).toEqual([
		['Bodice', 2],
		['Sleeve', 1],
	]);
});
