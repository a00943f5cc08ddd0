import { expect, test } from 'vitest';
import { allRead, forget, reads } from './reads';

test('what is done with a form waits for what is still being read', async () => {
	let arrive: (read: boolean) => void = () => {};
	void reads('waist', new Promise((done) => (arrive = done)));
	let done = false;
	const waiting = allRead().then((all) => ((done = true), all));
	await new Promise((resolve) => setTimeout(resolve, 1));
	expect(done).toBe(false);
	arrive(true);
	expect(await waiting).toBe(true);
});

test('a number that cannot be read holds the form back until it is corrected or gone', async () => {
	await reads('waist', Promise.resolve(false));
	expect(await allRead()).toBe(false);
	await reads('waist', Promise.resolve(true));
	expect(await allRead()).toBe(true);
	await reads('hip', Promise.resolve(false));
	forget('hip');
	expect(await allRead()).toBe(true);
});
