import { flushSync, mount, unmount, type Component } from 'svelte';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Given, GivenOut, GivenSeam, Traced } from '../../lib/api/client';
import type { Desk } from '../../lib/desk/desk.svelte';
import { json, NOTHING_GIVEN, serving } from '../../lib/testing';
import { Capture } from './capture.svelte';
import PictureSheet from './PictureSheet.svelte';
import Seams from './Seams.svelte';
import Size from './Size.svelte';

let shown: Record<string, unknown> | null = null;

function put<Props extends Record<string, unknown>>(of: Component<Props>, props: Props): void {
	shown = mount(of, { target: document.body, props });
	flushSync();
}

function button(words: string): HTMLButtonElement {
	const found = [...document.querySelectorAll('button')].find((one) => one.textContent?.trim() === words);
	if (!found) throw new Error(`no button “${words}”`);
	return found;
}

/** What is read on the page: lengths hold together there. */
function read(): string {
	return document.body.textContent!.replaceAll('\u00a0', ' ').replaceAll('\u202f', ' ');
}

afterEach(() => {
	if (shown) void unmount(shown);
	shown = null;
	document.body.innerHTML = '';
	vi.useRealTimers();
});

const sides: GivenSeam['sides'] = [
	{ panel: 'front', line: 'side' },
	{ panel: 'back', line: 'side' },
];
const seam = (more: Partial<GivenSeam>): GivenSeam => ({
	name: 'side',
	sides,
	words: ['side', 'side'],
	kind: 'side',
	before: [20, 20.3],
	differs: 0.3,
	ease: 0,
	trued: true,
	proposed: true,
	...more,
});
const found = (more: Partial<GivenOut>): GivenOut => ({
	panels: [],
	seams: [],
	free: [],
	cubics: 0,
	farthest: 0,
	cap: null,
	around: [],
	levels: {},
	body: {},
	most_graded: 1.5,
	...more,
});

describe('the seams of given panels', () => {
	function seams(one: GivenSeam, more: Partial<GivenOut> = {}) {
		const ontry = vi.fn<(given: Given) => void>();
		const onlay = vi.fn();
		put(Seams, {
			given: NOTHING_GIVEN,
			found: found({ seams: [one], ...more }),
			first: undefined,
			onpoint: vi.fn(),
			onend: vi.fn(),
			ontry,
			onlight: vi.fn(),
			laid: null,
			onlay,
		});
		return { ontry, onlay };
	}

	it('that agree say so; one end after the other is laid together', () => {
		const { onlay } = seams(seam({}));
		expect(read()).toContain('made to agree');
		button('Lay together').click();
		expect(onlay).toHaveBeenLastCalledWith({ seam: 'side', end: 'start' });
		button('at the other end').click();
		expect(onlay).toHaveBeenLastCalledWith({ seam: 'side', end: 'end' });
	});

	it('that are far apart are left as marked, and eased in or left open by a button', () => {
		const { ontry } = seams(seam({ trued: false, before: [20, 22.4], differs: 2.4 }));
		expect(read()).toContain('2.4 cm apart: left as marked');
		button('Ease it in over the bust').click();
		expect(ontry.mock.lastCall![0].seams).toEqual([{ first: sides[0], second: sides[1], ease: 2.4 }]);
		button('Not a seam').click();
		expect(ontry.mock.lastCall![0].open).toEqual(sides);
	});

	it('of a cap that is too short for its armhole say what to do', () => {
		seams(seam({}), { cap: { armhole: 44, cap: 43.2, fits: false } });
		expect(read()).toContain('0.8 cm too short: re-cap it, in Style');
	});
});

describe('the size of given panels', () => {
	const levels = { bust: 0, waist: -17 };

	function typedIn(label: string, text: string): void {
		const field = [...document.querySelectorAll('label')].find((one) => one.textContent?.includes(label));
		const input = field?.querySelector('input') ?? document.getElementById(field?.htmlFor ?? '');
		if (!(input instanceof HTMLInputElement)) throw new Error(`no field “${label}”`);
		input.value = text;
		input.dispatchEvent(new Event('input', { bubbles: true }));
		input.dispatchEvent(new Event('change', { bubbles: true }));
		flushSync();
	}

	it('is graded from the body it was draped on to the measures that the wearer has, and no other', async () => {
		serving(() => json({ value: 92, text: '92', warning: '' }));
		const ontry = vi.fn<(given: Given) => void>();
		put(Size, {
			given: { ...NOTHING_GIVEN, levels },
			found: found({ body: { bust: 96, above: 41 } }),
			ontry,
		});
		expect(read()).toContain('bust of the body it was draped on');
		expect(read()).not.toMatch(/(?<!to )waist of the body/);
		typedIn('bust of the body', '92');
		await vi.waitFor(() => expect(ontry).toHaveBeenCalled());
		expect(ontry.mock.lastCall![0].graded?.widths).toEqual({ bust: { of: 92, to: 96 } });
	});

	it('asks for the wearer’s measures where there are none', () => {
		put(Size, { given: { ...NOTHING_GIVEN, levels }, found: found({}), ontry: vi.fn() });
		expect(read()).toContain('Take the wearer’s girths first');
	});
});

describe('what is taken over a picture', () => {
	function traced(): Capture {
		vi.useFakeTimers();
		const capture = new Capture({ job: null } as unknown as Desk);
		capture.shown = 'blob:picture';
		[capture.width, capture.height] = [1000, 800];
		capture.click([1, 1]);
		capture.found = { lines: [], ghosts: [], px_per_cm: 20 } as unknown as Traced;
		capture.taken.begin([
			{ kind: 'corner', at: [100, 100], exact: true },
			{ kind: 'notch', at: [200, 100], exact: true },
		]);
		put(PictureSheet, { capture });
		return capture;
	}

	function press(target: Element, key: string, more: KeyboardEventInit = {}): void {
		target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, ...more }));
		flushSync();
	}

	it('is moved by a millimetre, with Shift by a fifth of one, and dropped by key', () => {
		const { taken } = traced();
		const [corner] = document.querySelectorAll('[data-taken=corner]');
		press(corner!, 'ArrowRight');
		press(corner!, 'ArrowDown', { shiftKey: true });
		expect(taken.all[0]!.at[0]).toBeCloseTo(102);
		expect(taken.all[0]!.at[1]).toBeCloseTo(100.4);
		press(document.querySelector('[data-taken=notch]')!, 'Delete');
		expect(taken.all.map((one) => one.kind)).toEqual(['corner']);
	});

	it('is looked at from near by key, the pointer then goes finer, and all of it is there again', () => {
		traced();
		const sheet = document.querySelector('svg')!;
		const width = () => Number(sheet.getAttribute('viewBox')!.split(' ')[2]);
		press(sheet, '+');
		press(sheet, '+');
		expect(width()).toBeCloseTo(640);
		press(sheet, 'ArrowRight');
		expect(document.querySelector('.pointer')!.getAttribute('transform')).toContain('translate(512.8');
		press(sheet, '-');
		expect(width()).toBeCloseTo(800);
		for (let n = 0; n < 3; n++) press(sheet, '-');
		expect(sheet.getAttribute('viewBox')).toBe('0 0 1000 800');
		for (let n = 0; n < 40; n++) press(sheet, '+');
		expect(width()).toBeCloseTo(50);
		press(sheet, '0');
		expect(width()).toBe(1000);
	});

	it('is taken at the pointer by the letter of its kind', () => {
		const { taken } = traced();
		const sheet = document.querySelector('svg')!;
		press(sheet, 'ArrowRight');
		press(sheet, 'n');
		press(sheet, 'c');
		press(sheet, 'q');
		expect(taken.all.slice(2)).toEqual([
			{ kind: 'notch', at: [520, 400], exact: false },
			{ kind: 'cross', at: [520, 400], exact: false },
		]);
	});
});
