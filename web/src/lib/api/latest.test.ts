import { expect, test } from 'vitest';
import { Latest } from './latest';

function deferred(): { promise: Promise<void>; open: () => void } {
	let open = () => {};
	const promise = new Promise<void>((resolve) => (open = resolve));
	return { promise, open };
}

test('of wishes made while one is worked, only the newest is worked next', async () => {
	const gate = deferred();
	const worked: number[] = [];
	const done: number[] = [];
	const latest = new Latest<number, number>(
		async (n) => {
			worked.push(n);
			if (n === 1) await gate.promise;
			return n * 10;
		},
		(result) => done.push(result),
		() => {},
	);
	latest.wish(1);
	latest.wish(2);
	latest.wish(3);
	gate.open();
	await new Promise((resolve) => setTimeout(resolve, 5));
	expect(worked).toEqual([1, 3]);
	expect(done).toEqual([10, 30]);
});

test('a failure is told and does not stop later wishes', async () => {
	const failures: unknown[] = [];
	const done: string[] = [];
	const latest = new Latest<string, string>(
		async (w) => {
			if (w === 'bad') throw new Error('no');
			return w;
		},
		(result) => done.push(result),
		(error) => failures.push(error),
	);
	latest.wish('bad');
	await new Promise((resolve) => setTimeout(resolve, 1));
	latest.wish('good');
	await new Promise((resolve) => setTimeout(resolve, 1));
	expect(failures).toHaveLength(1);
	expect(done).toEqual(['good']);
});
