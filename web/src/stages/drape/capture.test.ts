import { describe, expect, it, vi } from 'vitest';
import type { Desk } from '../../lib/desk/desk.svelte';
import { json, serving } from '../../lib/testing';
import { Capture } from './capture.svelte';

/** A picture that was chosen and sent already. */
function chosen(): Capture {
	const capture = new Capture({ job: null } as unknown as Desk);
	capture.shown = 'blob:picture';
	capture.title = 'Side front';
	return capture;
}

describe('what is asked of a picture', () => {
	it('is a tap alone where sheets tell the scale', () => {
		const capture = chosen();
		expect(capture.asked).toContain('Tap the piece');
		expect(capture.ready).toBe(false);
		capture.click([10, 20]);
		expect(capture.tap).toEqual([10, 20]);
		expect(capture.asked).toBe('');
		expect(capture.ready).toBe(true);
	});

	it('is each corner in turn, then the tap, then both lengths of a rectangle', () => {
		const capture = chosen();
		capture.by = 'rectangle';
		for (const corner of ['top left', 'top right', 'lower right', 'lower left']) {
			expect(capture.asked).toContain(corner);
			capture.click([0, 0]);
		}
		capture.click([5, 5]);
		expect(capture.spots).toHaveLength(4);
		expect(capture.tap).toEqual([5, 5]);
		capture.lengths = [60, null];
		expect(capture.ready).toBe(false);
		capture.lengths = [60, 90];
		expect(capture.ready).toBe(true);
	});

	it('begins anew with the clicks, and keeps the name', () => {
		const capture = chosen();
		capture.by = 'points';
		capture.click([1, 1]);
		expect(capture.asked).toBe('Click its other end.');
		capture.again();
		expect(capture.spots).toEqual([]);
		expect(capture.asked).toContain('one end');
		expect(capture.title).toBe('Side front');
	});

	it('is nothing where there is none, and no click counts once it is traced', () => {
		expect(new Capture({ job: null } as unknown as Desk).asked).toBe('');
		const capture = chosen();
		capture.found = {} as NonNullable<Capture['found']>;
		capture.click([3, 3]);
		expect(capture.tap).toBeNull();
	});

	it('needs a name', () => {
		const capture = chosen();
		capture.click([1, 1]);
		capture.title = '  ';
		expect(capture.ready).toBe(false);
	});
});

describe('what is taken over a traced picture', () => {
	function traced(): Capture {
		const capture = chosen();
		capture.click([1, 1]);
		capture.found = {} as NonNullable<Capture['found']>;
		capture.taken.begin([
			{ kind: 'corner', at: [10, 10], exact: true },
			{ kind: 'notch', at: [50, 10], exact: true },
		]);
		return capture;
	}

	it('is added by a click, moved to just there, dropped, and all of it undone', () => {
		const { taken, click } = withClick(traced());
		click('dot', [30, 30]);
		expect(taken.all.at(-1)).toEqual({ kind: 'dot', at: [30, 30], exact: false });
		taken.move(0, [12, 12]);
		expect(taken.all[0]).toEqual({ kind: 'corner', at: [12, 12], exact: true });
		taken.drop(1);
		expect(taken.all.map((one) => one.kind)).toEqual(['corner', 'dot']);
		for (let n = 0; n < 3; n++) taken.undo();
		expect(taken.all.map((one) => [one.kind, ...one.at])).toEqual([
			['corner', 10, 10],
			['notch', 50, 10],
		]);
		expect(taken.canUndo).toBe(false);
	});

	it('is undone at once where a key moved it many times', () => {
		const { taken } = traced();
		for (let x = 11; x < 20; x++) taken.move(0, [x, 10]);
		taken.undo();
		expect(taken.all[0]!.at).toEqual([10, 10]);
		expect(taken.canUndo).toBe(false);
	});

	it('is not put back by an answer to what was asked before it', async () => {
		vi.useFakeTimers();
		const capture = new Capture({ job: { id: 'j' } } as unknown as Desk);
		capture.shown = 'blob:picture';
		capture.click([1, 1]);
		const start = [{ kind: 'corner', at: [10, 10], exact: true }];
		const answers: Response[] = [];
		const asked = serving(() => answers.shift()!);
		answers.push(json({ uid: 'w', state: 'done', result: { taken: start } }));
		await capture.trace();
		capture.taken.move(0, [12, 10]);
		answers.push(json({ uid: 'w', state: 'running', done: 1, of: 4 }));
		await vi.advanceTimersByTimeAsync(400);
		capture.taken.move(0, [15, 10]);
		answers.push(json({ uid: 'w', state: 'done', result: { taken: [{ ...start[0], at: [12, 10] }] } }));
		await vi.advanceTimersByTimeAsync(300);
		expect(capture.taken.all[0]!.at).toEqual([15, 10]);
		answers.push(json({ uid: 'w', state: 'done', result: { taken: [{ ...start[0], at: [15, 10] }] } }));
		await vi.advanceTimersByTimeAsync(400);
		expect(asked.at(-1)!.body).toMatchObject({ taken: [{ kind: 'corner', at: [15, 10], exact: true }] });
		vi.useRealTimers();
	});

	it('stays chosen where it came to lie, though another list names it', () => {
		const { taken, click } = withClick(traced());
		click('dot', [30, 30]);
		taken.stands([
			{ kind: 'cross', at: [31, 29], exact: true },
			{ kind: 'corner', at: [29, 30], exact: true },
		]);
		expect(taken.current).toBe(0);
	});

	it('is left alone while a tape is clicked', () => {
		const capture = traced();
		capture.tool = 'tape';
		expect(capture.asked).toContain('one end');
		capture.click([5, 5]);
		expect(capture.asked).toContain('other end');
		capture.click([95, 5]);
		expect(capture.tape).toEqual([
			[5, 5],
			[95, 5],
		]);
		expect(capture.taken.all).toHaveLength(2);
	});

	function withClick(capture: Capture) {
		const click = (kind: 'dot', at: [number, number]) => {
			capture.tool = kind;
			capture.click(at);
		};
		return { taken: capture.taken, click };
	}
});
