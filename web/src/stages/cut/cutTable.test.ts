import { expect, test } from 'vitest';
import type { CutTableIn } from '../../lib/api/client';
import type { Desk } from '../../lib/desk/desk.svelte';
import { CutTableKept } from './cutTable.svelte';

test('changes made at once are all kept, each on top of the one before', async () => {
	let kept: CutTableIn = { cloths: {}, sums: [], times: 1, run: null };
	const desk = {
		job: null,
		reads: () => ({
			get value() {
				return { kept };
			},
		}),
		deeds: {
			// It takes a while: whatever began from what was there before would write over it.
			async layOut(table: CutTableIn) {
				await Promise.resolve();
				kept = table;
				return true;
			},
		},
	} as unknown as Desk;
	const table = new CutTableKept(desk);
	const run = { chart: 'women', from: 84, to: 96 } as unknown as CutTableIn['run'];
	const sum = { uid: 'a', kind: 'elastic', values: {}, note: '' } as never;
	expect(await Promise.all([table.cut(2), table.sizes(run!), table.sum(sum)])).toEqual([true, true, true]);
	expect(kept).toEqual({ cloths: {}, sums: [sum], times: 2, run });
	expect(await table.settled).toBe(true);
});
