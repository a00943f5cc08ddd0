import { afterEach, expect, it, vi } from 'vitest';
import type { Given, Job, Recipe } from '../../lib/api/client';
import type { Desk } from '../../lib/desk/desk.svelte';
import { store } from '../../lib/store';
import { NOTHING_GIVEN } from '../../lib/testing';
import { newPanel, withPanel } from './given';
import { Typed } from './typed.svelte';

const FRONT = newPanel('Front', []);

/** A desk on which a recipe can be tried and kept. */
function desk(given: Given, kept = true): Desk {
	const job = { id: 'j1', recipe: { given } as Recipe } as Job;
	const made = {
		job,
		trial: { recipe: job.recipe, try: (recipe: Recipe) => (made.trial.recipe = recipe) },
		leave: vi.fn(() => (made.trial.recipe = made.job.recipe)),
		deeds: {
			keep: vi.fn((change: (recipe: Recipe) => Recipe) => {
				if (kept) made.job = { ...made.job, recipe: change(made.job.recipe) };
				return Promise.resolve(kept);
			}),
		},
	};
	return made as unknown as Desk;
}

afterEach(() => store.drop('izett-given-j1'));

it('what is typed is tried, and put aside until it is kept', async () => {
	const on = desk(NOTHING_GIVEN);
	const typed = new Typed(on);
	expect(typed.unkept).toBe(false);
	typed.try(withPanel(NOTHING_GIVEN, FRONT));
	expect(typed.given.panels).toEqual([FRONT]);
	expect(typed.unkept).toBe(true);
	expect(store.read('izett-given-j1')).toContain('front');
	expect(await typed.keep('marks')).toBe(true);
	expect(on.job!.recipe.given.panels).toEqual([FRONT]);
	expect(store.read('izett-given-j1')).toBeNull();
});

it('what was not kept is put back on the next visit, on what is kept by then', () => {
	new Typed(desk(NOTHING_GIVEN)).try(withPanel(NOTHING_GIVEN, FRONT));
	const back = newPanel('Back', []);
	const next = new Typed(desk(withPanel(NOTHING_GIVEN, back)));
	next.begin();
	expect(next.restored).toBe(true);
	expect(next.given.panels).toEqual([back, FRONT]);
	next.letGo();
	expect(next.restored).toBe(false);
	expect(store.read('izett-given-j1')).toBeNull();
});

it('what could not be kept stays put aside, and what is damaged is dropped', async () => {
	const typed = new Typed(desk(NOTHING_GIVEN, false));
	typed.try(withPanel(NOTHING_GIVEN, FRONT));
	expect(await typed.keep('marks')).toBe(false);
	expect(store.read('izett-given-j1')).not.toBeNull();
	store.write('izett-given-j1', '{damaged');
	const next = new Typed(desk(NOTHING_GIVEN));
	next.begin();
	expect(next.restored).toBe(false);
	expect(store.read('izett-given-j1')).toBeNull();
});

it('a browser that can put nothing aside is told', () => {
	const write = vi.spyOn(store, 'write').mockReturnValue(false);
	const typed = new Typed(desk(NOTHING_GIVEN));
	typed.try(withPanel(NOTHING_GIVEN, FRONT));
	expect(typed.unsafe).toBe(true);
	write.mockRestore();
});
