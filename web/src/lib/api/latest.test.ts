import { expect, test } from 'vitest';
import { Lane, Latest } from './latest';

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

test('two that share a lane take turns, each with its newest wish', async () => {
	const lane = new Lane();
	const gate = deferred();
	let inFlight = 0;
	let most = 0;
	const done: string[] = [];
	const on = (name: string): Latest<number, string> =>
		new Latest<number, string>(
			async (n) => {
				most = Math.max(most, (inFlight += 1));
				await gate.promise;
				inFlight -= 1;
				if (n === 4) throw new Error('no');
				return `${name}${n}`;
			},
			(result) => done.push(result),
			() => done.push('failed'),
			lane,
		);
	const first = on('first');
	const second = on('second');
	first.wish(1);
	second.wish(1);
	second.wish(2);
	first.wish(3);
	first.wish(4);
	gate.open();
	await new Promise((resolve) => setTimeout(resolve, 5));
	expect(most).toBe(1);
	expect(done).toEqual(['first1', 'second2', 'failed']);
	second.wish(5);
	await new Promise((resolve) => setTimeout(resolve, 5));
	expect(done.at(-1)).toBe('second5');
});
