import { beforeEach, expect, test } from 'vitest';
import type { Catalogue } from '../api/client';
import { shelf } from './catalogue.svelte';

beforeEach(() => {
	shelf.catalogue.value = {
		measures: [{ symbol: 'hip_girth', name: 'Hip girth' }],
		sets: [{ key: 'bodice' }, { key: 'skirt' }],
		blocks: [
			{ key: 'bodice', used: ['bust_girth', 'waist_girth'], required: [['bust_girth'], ['waist_girth']] },
			{ key: 'skirt', used: ['hip_girth', 'waist_girth'], required: [['hip_girth'], ['waist_girth']] },
		],
	} as unknown as Catalogue;
});

test('a sheet lists what its blocks can use, and first what they cannot do without', () => {
	const both = shelf.measuresOf(['bodice', 'skirt']);
	expect([...both.used].sort()).toEqual(['bust_girth', 'hip_girth', 'waist_girth']);
	expect(shelf.measuresOf(['skirt']).required).toEqual(new Set(['hip_girth', 'waist_girth']));
	expect(shelf.measuresOf([]).used.size).toBe(0);
});

test('a starter set of no name is the first', () => {
	expect(shelf.set('skirt')?.key).toBe('skirt');
	expect(shelf.set('')?.key).toBe('bodice');
});

test('a measure is named, or its symbol read in words', () => {
	expect(shelf.name('hip_girth')).toBe('Hip girth');
	expect(shelf.name('front_side_ease')).toBe('front side ease');
});
