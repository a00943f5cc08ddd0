import { describe, expect, it } from 'vitest';
import type { Desk } from '../../lib/desk/desk.svelte';
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
