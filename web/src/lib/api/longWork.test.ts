import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { json, serving } from '../testing';
import { answered, api, type Work } from './client';
import { LongWork } from './longWork.svelte';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const work = (state: string, more: object = {}) => ({
	uid: 'w',
	kind: 'advice',
	state,
	done: 0,
	of: 0,
	...more,
});

function begin() {
	const body = { uid: 'w', wearer: 'p', readings: {}, job: null };
	return api.POST('/api/measures/advice', { body });
}

test('work is watched until it is done, and tells how far it has come', async () => {
	const states = [
		work('waiting'),
		work('running', { done: 3, of: 9 }),
		work('done', { result: { next: [] } }),
	];
	const asked = serving(() => json(states.shift()));
	const long = new LongWork();
	const result = long.begin(begin());
	await vi.advanceTimersByTimeAsync(260);
	expect([long.underWay, long.work?.done, long.work?.of]).toEqual([true, 3, 9]);
	await vi.advanceTimersByTimeAsync(260);
	expect(await result).toEqual({ next: [] });
	expect(long.underWay).toBe(false);
	expect(asked.map(({ method, path }) => `${method} ${path}`)).toEqual([
		'POST /api/measures/advice',
		'GET /api/long-work/w',
		'GET /api/long-work/w',
	]);
});

test('work that is stopped is watched no more', async () => {
	const asked = serving(({ path }) => json(work(path.endsWith('/stop') ? 'stopped' : 'running')));
	const long = new LongWork();
	const result = long.begin(begin());
	await vi.advanceTimersByTimeAsync(10);
	await long.stop();
	await vi.advanceTimersByTimeAsync(1000);
	expect(await result).toBeNull();
	expect(long.stopped).toBe(true);
	expect(asked.at(-1)?.path).toBe('/api/long-work/w/stop');
	await long.stop();
	expect(asked.filter(({ path }) => path.endsWith('/stop'))).toHaveLength(1);
});

test('work that was deleted meanwhile comes to nothing, and is no error', async () => {
	let n = 0;
	serving(() => (n++ ? new Response(null, { status: 204 }) : json(work('running'))));
	const long = new LongWork();
	const result = long.begin(begin());
	await vi.advanceTimersByTimeAsync(300);
	expect(await result).toBeNull();
	expect([long.work, long.problem, long.underWay]).toEqual([null, null, false]);
});

test('work that came to nothing says why', async () => {
	const problem = { code: 'work-lost', message: 'The program was stopped.', fix: 'Start it again.' };
	serving(() => json(work('failed', { problem })));
	const long = new LongWork();
	expect(await long.begin(begin())).toBeNull();
	expect(long.problem).toMatchObject({ code: 'work-lost', fix: 'Start it again.' });
});

test('a newer question takes the place of the older', async () => {
	let n = 0;
	serving(({ method }) => {
		if (method === 'POST') n += 1;
		return json(work(n === 1 ? 'running' : 'done', n === 1 ? {} : { result: { next: ['new'] } }));
	});
	const long = new LongWork();
	const older = long.begin(begin());
	await vi.advanceTimersByTimeAsync(10);
	const newer = long.begin(begin());
	await vi.advanceTimersByTimeAsync(600);
	expect(await older).toBeNull();
	expect(await newer).toEqual({ next: ['new'] });
	expect((await answered<Work>(begin())).state).toBe('done');
});
