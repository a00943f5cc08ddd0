import { expect, test } from 'vitest';
import { newPanel } from '../../stages/drape/given';
import type { Block, Recipe, Step } from '../api/client';
import { NOTHING_GIVEN } from '../testing';
import {
	adding,
	asUsual,
	blocksOf,
	cuttingOf,
	newStep,
	newUid,
	standing,
	withBlocks,
	withoutStep,
	withStep,
	withCutting,
	withRemedy,
	withSection,
	withStepBeside,
	withValue,
	withWay,
} from './recipe';

const recipe = {
	block: 'bodice',
	also: ['sleeve'],
	school: 'direct',
	schools: {},
	overrides: { waist_ease: 5 },
	house: { bust_ease: 7 },
	why: { bust_ease: 'our house' },
	given: NOTHING_GIVEN,
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

test('there is always a block, or a given piece', () => {
	expect(blocksOf(recipe)).toEqual(['bodice', 'sleeve']);
	expect(blocksOf(withBlocks(recipe, ['torso', 'sleeve']))).toEqual(['torso', 'sleeve']);
	expect(withBlocks(recipe, [])).toBe(recipe);
	const given = { ...recipe.given, panels: [newPanel('Front', [])] };
	expect(blocksOf(withBlocks({ ...recipe, given }, []))).toEqual([]);
});

const block = (key: string, clothes: string[], stands_on: string[] = []) =>
	({ key, clothes, stands_on }) as unknown as Block;
const all = [
	block('bodice', ['above']),
	block('torso', ['above', 'below']),
	block('sleeve', [], ['bodice', 'torso']),
	block('skirt', ['below']),
	block('trousers', ['below']),
	block('knit_top', ['above', 'below']),
	block('knit_sleeve', [], ['knit_top']),
];

test('a block takes the place of what clothes the same, and of what stood on that', () => {
	expect(adding(all, ['bodice', 'sleeve', 'skirt'], 'trousers')).toEqual(['bodice', 'sleeve', 'trousers']);
	expect(adding(all, ['bodice', 'sleeve', 'skirt'], 'torso')).toEqual(['sleeve', 'torso']);
	expect(adding(all, ['bodice', 'sleeve', 'skirt'], 'knit_top')).toEqual(['knit_top']);
	expect(adding(all, ['bodice'], 'bodice')).toEqual(['bodice']);
});

test('what it stands on comes with it, unless something of that kind is there', () => {
	expect(adding(all, ['skirt'], 'sleeve')).toEqual(['skirt', 'bodice', 'sleeve']);
	expect(adding(all, ['torso'], 'sleeve')).toEqual(['torso', 'sleeve']);
	expect(adding(all, ['bodice', 'sleeve'], 'knit_sleeve')).toEqual(['knit_top', 'knit_sleeve']);
});

test('what has lost what it stood on goes too', () => {
	expect(standing(all, ['sleeve', 'skirt'])).toEqual(['skirt']);
	expect(standing(all, ['torso', 'sleeve'])).toEqual(['torso', 'sleeve']);
});

const step = (uid: string, amount = 1): Step => newStep('change_shoulder', { amount }, { uid });
const stepped = { ...recipe, steps: [step('a'), step('b'), step('c')] } as Recipe;
const uids = (of: Recipe): string[] => (of.steps ?? []).map((s) => s.uid);

test('a step is added at the end, or takes the place of the one of its name', () => {
	expect(uids(withStep(stepped, step('d')))).toEqual(['a', 'b', 'c', 'd']);
	const changed = withStep(stepped, step('b', 2));
	expect(uids(changed)).toEqual(['a', 'b', 'c']);
	expect(changed.steps![1]!.params).toEqual({ amount: 2 });
	expect(stepped.steps![1]!.params).toEqual({ amount: 1 });
});

test('a step is taken out, or put before or after its neighbour', () => {
	expect(uids(withoutStep(stepped, 'b'))).toEqual(['a', 'c']);
	expect(uids(withStepBeside(stepped, 'c', 'b', 'before'))).toEqual(['a', 'c', 'b']);
	expect(uids(withStepBeside(stepped, 'a', 'c', 'after'))).toEqual(['b', 'c', 'a']);
	expect(withStepBeside(stepped, 'x', 'a', 'after')).toBe(stepped);
});

test('a remedy stands in place of the steps that its finding had before', () => {
	const neck = { uid: 'neck', kind: 'change_neckline', params: { front: 3 } } as unknown as Step;
	const old = { ...neck, uid: 'old' };
	const now = { ...neck, uid: 'now' };
	const lower = { ...neck, params: { front: 2 } };
	const styled = { ...recipe, steps: [neck, old] } as Recipe;
	const way = { steps: [now], amends: [{ step: lower }] } as unknown as Parameters<typeof withRemedy>[1];
	expect(withRemedy(styled, way, ['old']).steps).toEqual([lower, now]);
	expect(withRemedy(styled, way).steps, 'a finding that is new has none').toEqual([lower, old, now]);
});

test('a step is put in another section, the others stay where they are', () => {
	const moved = withSection(stepped, 'b', 'fit');
	expect(moved.steps!.map((s) => s.section)).toEqual([null, 'fit', null]);
});

test('seam allowances are one step of the recipe, changed in place', () => {
	const home = withCutting(stepped, 'muslin', (now) => ({ ...now, purpose: 'home' }));
	const wide = withCutting(home, 'draped', (now) => ({
		...now,
		lines: [{ line: 'front.neck', width: 0.7 }],
	}));
	expect(wide.steps).toHaveLength(4);
	expect(cuttingOf(wide, 'draped')).toEqual({ purpose: 'home', lines: [{ line: 'front.neck', width: 0.7 }] });
	expect(cuttingOf(stepped, 'draped')).toEqual({ purpose: 'draped', lines: [] });
});

test('every new step has a name of its own that documents allow', () => {
	const made = new Set(Array.from({ length: 50 }, newUid));
	expect(made.size).toBe(50);
	for (const uid of made) expect(uid).toMatch(/^[A-Za-z0-9_-]{1,64}$/);
});
