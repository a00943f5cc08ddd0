import { expect, test } from 'vitest';
import { Loaded } from './loaded.svelte';

function answer(body: unknown, status = 200) {
	const ok = status < 400;
	return {
		data: ok ? body : undefined,
		error: ok ? undefined : body,
		response: new Response(null, { status }),
	};
}

test('a late answer to an older question is dropped', async () => {
	const loaded = new Loaded<string>();
	let late: (value: ReturnType<typeof answer>) => void = () => {};
	const older = loaded.load(new Promise((done) => (late = done)));
	expect(loaded.busy).toBe(true);
	expect(await loaded.load(Promise.resolve(answer('new')))).toBe('new');
	late(answer('old'));
	expect(await older).toBeNull();
	expect([loaded.value, loaded.busy]).toEqual(['new', false]);
});

test('what went wrong is told, and what was read stays', async () => {
	const told: string[] = [];
	const loaded = new Loaded<string>((problem) => told.push(problem.message));
	await loaded.load(Promise.resolve(answer('here')));
	expect(await loaded.load(Promise.resolve(answer({ detail: 'Gone.' }, 404)))).toBeNull();
	expect([loaded.value, loaded.problem?.message, told]).toEqual(['here', 'Gone.', ['Gone.']]);
	await loaded.load(Promise.resolve(answer('again')));
	expect(loaded.problem).toBeNull();
});

test('what is put away is gone, and its answer under way is dropped', async () => {
	const loaded = new Loaded<string>();
	const under = loaded.load(Promise.resolve(answer('late')));
	loaded.clear();
	expect(await under).toBeNull();
	expect([loaded.value, loaded.busy]).toEqual([null, false]);
});
