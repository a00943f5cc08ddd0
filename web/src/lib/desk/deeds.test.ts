import { expect, test } from 'vitest';
import type { Job, Recipe } from '../api/client';
import { json, serving, type Asked } from '../testing';
import { Deeds } from './deeds.svelte';

/** A server with one job, which goes on by a version with every deed on its newest. */
function keeping(job: { version: number; recipe: object }) {
	return ({ method, headers, body }: Asked): Response => {
		if (method === 'GET') return json({ id: 'j', ...job });
		const version = Number(headers.get('If-Match')?.replaceAll('"', ''));
		if (version !== job.version)
			return json(
				{ title: 'job changed', detail: 'It was changed elsewhere.', fix: '', job: { id: 'j', ...job } },
				412,
			);
		Object.assign(job, { version: version + 1, recipe: body.recipe ?? job.recipe });
		return json({ id: 'j', ...job });
	};
}

const withEase =
	(ease: number) =>
	(recipe: Recipe): Recipe => ({ ...recipe, overrides: { ...recipe.overrides, bust_ease: ease } });

test('a deed is done on the version that the page shows, and the job as kept is told', async () => {
	const asked = serving(keeping({ version: 3, recipe: {} }));
	const states: Job[] = [];
	const deeds = new Deeds((job) => states.push(job));
	await deeds.open('j');
	expect(await deeds.keep(withEase(6), 'more ease')).toBe(true);
	expect(await deeds.keep(withEase(7), 'still more')).toBe(true);
	expect(asked.map(({ headers }) => headers.get('If-Match'))).toEqual([null, '"3"', '"4"']);
	expect(states.map(({ version }) => version)).toEqual([3, 4, 5]);
});

test('a deed on an outdated version is done again on the newer one, and takes nothing of that back', async () => {
	const job = { version: 3, recipe: {} };
	serving(keeping(job));
	const deeds = new Deeds(() => {});
	await deeds.open('j');
	Object.assign(job, { version: 4, recipe: { overrides: { waist_ease: 2 } } });
	expect(await deeds.keep(withEase(6), 'more ease')).toBe(false);
	expect(deeds.unfinished).toBe('more ease');
	await deeds.again();
	expect(deeds.problem).toBeNull();
	expect(job.recipe).toEqual({ overrides: { waist_ease: 2, bust_ease: 6 } });
	expect(deeds.unfinished).toBe('');
});

test('a failed deed can be let go: the newer state is shown', async () => {
	const job = { version: 3, recipe: {} };
	serving(keeping(job));
	const deeds = new Deeds(() => {});
	await deeds.open('j');
	job.version = 9;
	await deeds.keep(withEase(6), 'more ease');
	await deeds.letGo();
	expect(deeds.job?.version).toBe(9);
	expect([deeds.problem, deeds.unfinished]).toEqual([null, '']);
});

test('changes asked for while a deed is under way are done after it, in their order; the same one is done once', async () => {
	const job = { version: 1, recipe: {} };
	const asked = serving(keeping(job));
	const deeds = new Deeds(() => {});
	await deeds.open('j');
	const table = { cloths: {}, sums: [], times: 2, run: null };
	const kept = await Promise.all([
		deeds.keep(withEase(6), 'more ease'),
		deeds.keep(withEase(6), 'more ease'),
		deeds.layOut(table, 'how many are cut'),
		deeds.keep((recipe) => ({ ...recipe, fit: 'easy' }), 'an easy fit'),
	]);
	expect(kept).toEqual([true, false, true, true]);
	expect(asked.slice(1).map(({ headers }) => headers.get('If-Match'))).toEqual(['"1"', '"2"', '"3"']);
	expect(asked[2]?.body.times).toBe(2);
	expect(job.recipe).toEqual({ overrides: { bust_ease: 6 }, fit: 'easy' });
	expect(deeds.busy).toBe(false);
});

test('what follows from how the job stands is not done while another deed is under way', async () => {
	const asked = serving(keeping({ version: 1, recipe: {} }));
	const deeds = new Deeds(() => {});
	await deeds.open('j');
	expect(await Promise.all([deeds.keep(withEase(6), 'more ease'), deeds.spend(20)])).toEqual([true, false]);
	expect(asked).toHaveLength(2);
});

test('what could not be done on one job is not done on the next', async () => {
	const asked = serving(({ method, path }) =>
		method === 'GET'
			? json({ id: path.split('/').at(-1), version: 1, recipe: {} })
			: json({ title: 'disk full', detail: 'The disk is full.', fix: 'Free some space.' }, 507),
	);
	const deeds = new Deeds(() => {});
	await deeds.open('first');
	await deeds.keep(withEase(6), 'more ease');
	await deeds.open('second');
	await deeds.keep(withEase(7), 'still more');
	expect(deeds.unfinished).toBe('still more');
	expect(asked.at(-1)?.body.recipe).toEqual({ overrides: { bust_ease: 7 } });
});

test('what waited for a deed that failed is not lost: it is done after it', async () => {
	let full = true;
	const job = { version: 3, recipe: {} };
	const answer = keeping(job);
	serving((one) =>
		one.method === 'GET' || !full
			? answer(one)
			: json({ title: 'disk full', detail: 'The disk is full.', fix: 'Free some space.' }, 507),
	);
	const tried: Recipe[] = [];
	const deeds = new Deeds(
		() => {},
		(recipe) => tried.push(recipe),
	);
	await deeds.open('j');
	const easy = (recipe: Recipe): Recipe => ({ ...recipe, fit: 'easy' });
	await Promise.all([deeds.keep(withEase(6), 'more ease'), deeds.keep(easy, 'an easy fit')]);
	expect(deeds.unfinished).toBe('more ease; an easy fit');
	expect(tried.at(-1)).toEqual({ overrides: { bust_ease: 6 }, fit: 'easy' });
	full = false;
	// What is asked for next comes after them, too.
	expect(await deeds.keep((recipe) => ({ ...recipe, side: 'left' }), 'left')).toBe(true);
	expect(job).toMatchObject({
		version: 6,
		recipe: { overrides: { bust_ease: 6 }, fit: 'easy', side: 'left' },
	});
	expect([deeds.problem, deeds.unfinished]).toEqual([null, '']);
});

test('what is refused stands in the way of nothing', async () => {
	const job = { version: 1, recipe: {} };
	const answer = keeping(job);
	serving((one) =>
		(one.body.recipe as { fit?: string } | undefined)?.fit === 'none'
			? json({ title: 'refused', detail: 'There is no such fit.', fix: 'Choose one.' }, 422)
			: answer(one),
	);
	const deeds = new Deeds(() => {});
	await deeds.open('j');
	const odd = (recipe: Recipe): Recipe => ({ ...recipe, fit: 'none' });
	const kept = await Promise.all([deeds.keep(odd, 'an odd fit'), deeds.keep(withEase(6), 'more ease')]);
	expect(kept).toEqual([false, true]);
	expect(deeds.problem?.message).toBe('There is no such fit.');
	expect(job.recipe).toEqual({ overrides: { bust_ease: 6 } });
	expect(await deeds.keep(withEase(7), 'still more')).toBe(true);
	expect(deeds.problem).toBeNull();
});

test('a remedy that is applied again, since nobody answered, makes no second step', async () => {
	let reached = false;
	const answer = keeping({ version: 1, recipe: {} });
	const asked = serving((one) => {
		if (one.method === 'GET' || reached) return answer(one);
		throw new TypeError('no network');
	});
	const deeds = new Deeds(() => {});
	await deeds.open('j');
	const plan = { key: 'side', title: 'At the side', steps: [{ uid: 's1' }, { uid: 's2' }] } as never;
	expect(await deeds.apply(1, 'f1', plan)).toBe(false);
	expect(deeds.problem?.offline).toBe(true);
	reached = true;
	await deeds.again();
	const [first, second] = asked.filter(({ method }) => method === 'POST').map(({ body }) => body.uids);
	expect(first).toEqual(['s1', 's2']);
	expect(second).toEqual(first);
});

test('on a full disk the deed can be done again, and what is tried stays until it is kept', async () => {
	let full = true;
	const answer = keeping({ version: 3, recipe: {} });
	const asked = serving((one) => {
		if (one.method === 'GET' || !full) return answer(one);
		return json({ title: 'disk full', detail: 'The disk is full.', fix: 'Free some space.' }, 507);
	});
	const states: Job[] = [];
	const tried: Recipe[] = [];
	const deeds = new Deeds(
		(job) => states.push(job),
		(recipe) => tried.push(recipe),
	);
	await deeds.open('j');
	await deeds.keep(withEase(6), 'more ease');
	expect(tried).toEqual([{ overrides: { bust_ease: 6 } }]);
	await deeds.again();
	expect(deeds.problem?.passing).toBe(true);
	expect(deeds.unfinished).toBe('more ease');
	// Nothing was taken anew: the table shows what was tried.
	expect(states).toHaveLength(1);
	full = false;
	await deeds.again();
	expect([deeds.problem, deeds.job?.version]).toEqual([null, 4]);
	expect(asked.at(-1)?.body.recipe).toEqual({ overrides: { bust_ease: 6 } });
});
