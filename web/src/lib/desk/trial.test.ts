import { expect, test } from 'vitest';
import type { Recipe } from '../api/client';
import { arrived, json, serving, type Asked } from '../testing';
import { Pieces, Trial } from './trial.svelte';

const ground = { job: 'j', sheet: 1 };
const recipe = (name: string): Recipe => ({ block: name }) as Recipe;

/** A server that draws two pieces: one that all recipes share, one of the recipe's own; known ones are not sent. */
function drawing({ body }: Asked): Response {
	const { block } = body.recipe as { block: string };
	if (block === 'impossible') return json({ title: 'draft refused', detail: 'No draft.', fix: '' }, 422);
	const order = ['shared', block];
	const pieces = order.filter((key) => !(body.known as string[]).includes(key)).map((key) => ({ key }));
	return json({ order, pieces, titles: {} });
}

test('several are tried at once, each with its own result, and share the pieces that they have in common', async () => {
	const asked = serving(drawing);
	const store = new Pieces();
	const [one, other] = [new Trial(() => ground, store), new Trial(() => ground, store)];
	one.try(recipe('bodice'));
	other.try(recipe('skirt'), { than: recipe('bodice') });
	await arrived();
	expect(one.pieces.map((piece) => piece.key)).toEqual(['shared', 'bodice']);
	expect(other.pieces.map((piece) => piece.key)).toEqual(['shared', 'skirt']);
	expect(other.pieces[0]).toBe(one.pieces[0]);
	expect(asked.map(({ body }) => body.known)).toEqual([[], ['shared', 'bodice']]);
	expect(asked[1]?.body.than).toEqual({ block: 'bodice' });
});

test('what is shown already is not worked again', async () => {
	const asked = serving(drawing);
	const trial = new Trial(() => ground, new Pieces());
	trial.try(recipe('bodice'));
	await arrived();
	trial.try({ ...recipe('bodice') });
	trial.look({ cut: false });
	await arrived();
	expect(asked).toHaveLength(1);
	trial.look({ cut: true });
	await arrived();
	expect(asked).toHaveLength(2);
});

test('a recipe without a draft says why, and leaves what was shown', async () => {
	serving(drawing);
	const trial = new Trial(() => ground, new Pieces());
	trial.try(recipe('bodice'));
	await arrived();
	trial.try(recipe('impossible'));
	await arrived();
	expect(trial.problem?.message).toBe('No draft.');
	expect(trial.pieces).toHaveLength(2);
	trial.try(recipe('bodice'));
	await arrived();
	expect(trial.problem).toBeNull();
});

test('of many pieces only some are kept, the last used the longest', async () => {
	const asked = serving(drawing);
	const trial = new Trial(() => ground, new Pieces());
	for (let n = 0; n < 60; n += 1) {
		trial.try(recipe(`block-${n}`));
		await arrived();
	}
	const known = asked.at(-1)?.body.known as string[];
	expect(known.length).toBeLessThan(40);
	expect(known).toContain('shared');
	expect(known).toContain('block-58');
});
