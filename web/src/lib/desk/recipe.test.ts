import { expect, test } from 'vitest';
import type { Recipe } from '../api/client';
import { asUsual, blocksOf, withBlocks, withValue, withWay } from './recipe';

const recipe = {
	block: 'bodice',
	also: ['sleeve'],
	school: 'direct',
	schools: {},
	overrides: { waist_ease: 5 },
	house: { bust_ease: 7 },
	why: { bust_ease: 'our house' },
} as unknown as Recipe;

test('a value is set with its reason, and put back: first the job’s own, then the house’s', () => {
	const set = withValue(recipe, 'bust_ease', 8, 'she asked for room');
	expect(set.overrides).toEqual({ waist_ease: 5, bust_ease: 8 });
	expect(set.why).toEqual({ bust_ease: 'she asked for room' });
	const back = withValue(set, 'bust_ease', null);
	expect(back.overrides).toEqual({ waist_ease: 5 });
	expect(back.house).toEqual({ bust_ease: 7 });
	expect(withValue(back, 'bust_ease', null).house).toEqual({});
	expect(recipe.overrides).toEqual({ waist_ease: 5 });
});

test('ways are chosen by school; which measures count is asked of all blocks', () => {
	expect(withWay(recipe, 'shoulder', 'dart').schools).toEqual({ shoulder: 'dart' });
	expect(withWay(recipe, 'measures', 'proportional').school).toBe('proportional');
});

test('all can be put back at once', () => {
	const usual = asUsual(recipe);
	expect([usual.overrides, usual.house, usual.why]).toEqual([{}, {}, {}]);
	expect(usual.also).toEqual(['sleeve']);
});

test('there is always a block', () => {
	expect(blocksOf(recipe)).toEqual(['bodice', 'sleeve']);
	expect(blocksOf(withBlocks(recipe, ['torso', 'sleeve']))).toEqual(['torso', 'sleeve']);
	expect(withBlocks(recipe, [])).toBe(recipe);
});
