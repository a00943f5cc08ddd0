import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { Sheet, UnderWay } from '../../lib/api/client';
import { reading } from '../../lib/units.svelte';
import { asTyped, SheetTaking } from './sheet.svelte';

const REVIEW = {
	readings: [],
	contradictions: [],
	retake: [],
	unguarded: [],
	less_certain: [],
	uneven: [],
	estimates: [],
	derived: [],
	offers: [],
	moved: [],
	figure: { outlines: {}, details: {}, tapes: {}, levels: {} },
	missing: [],
	can_draft: false,
};

const KEPT: Sheet = {
	id: 7,
	number: 2,
	taken_on: '2026-10-01',
	taken_by: 'helper',
	worn: 'stays',
	readings: [
		{ symbol: 'bust_girth', text: '36 1/2', unit: 'in', cm: 92.71, again: [{ text: '36 5/8', unit: 'in' }] },
		{ symbol: 'waist_girth', text: '74', unit: 'cm', cm: 74, again: [] },
	],
};

let asked: { method: string; url: string; body: Record<string, unknown> }[];
let answers: (url: string) => Response | Promise<Response>;

function json(body: unknown, status = 200): Response {
	return new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });
}

beforeEach(() => {
	localStorage.clear();
	reading.unit = 'cm';
	asked = [];
	answers = () => json(REVIEW);
	vi.stubGlobal('fetch', async (request: Request) => {
		const text = await request.clone().text();
		asked.push({ method: request.method, url: request.url, body: text ? JSON.parse(text) : {} });
		return answers(request.url);
	});
});

const begun: SheetTaking[] = [];

function taking(...of: ConstructorParameters<typeof SheetTaking>): SheetTaking {
	const sheet = new SheetTaking(...of);
	begun.push(sheet);
	return sheet;
}

afterEach(() => {
	for (const sheet of begun.splice(0)) sheet.leave();
});

function underWay(saved: string, text: string): UnderWay {
	return {
		taken_on: '2026-11-20',
		taken_by: 'alone',
		worn: '',
		prepared: ['chain'],
		place: 'hip_girth',
		readings: { bust_girth: { text, unit: 'cm', again: [] } },
		saved,
	};
}

test('a new sheet starts from the last one as it was typed, taken today', () => {
	const sheet = taking('w', KEPT, null, null);
	expect(sheet.text('bust_girth')).toBe('36 1/2');
	expect(sheet.text('bust_girth', 1)).toBe('36 5/8');
	expect(sheet.readings.bust_girth?.unit).toBe('in');
	expect(sheet.takenOn).toBe(new Date().toISOString().slice(0, 10));
	expect(sheet.resumed).toBe(false);
});

test('a kept sheet as typed keeps every reading', () => {
	expect(asTyped(KEPT).readings.bust_girth).toEqual({
		text: '36 1/2',
		unit: 'in',
		again: [{ text: '36 5/8', unit: 'in' }],
	});
});

test('what was typed and not kept is here again, from this browser or from the server, the later counts', () => {
	const first = taking('w', null, null, null);
	first.type('bust_girth', '92');
	expect(taking('w', null, null, null).text('bust_girth')).toBe('92');
	expect(taking('w', null, null, underWay('2020-01-01T00:00:00Z', '80')).text('bust_girth')).toBe('92');
	const later = taking('w', null, null, underWay('2099-01-01T00:00:00Z', '101'));
	expect(later.text('bust_girth')).toBe('101');
	expect(later.place).toBe('hip_girth');
	expect(later.prepared).toEqual(['chain']);
	expect(later.takenBy).toBe('alone');
	expect(later.resumed).toBe(true);
});

test('what is typed goes to the server too, in the unit in which it was typed', async () => {
	const sheet = taking('w', null, null, null);
	sheet.type('bust_girth', '92');
	reading.unit = 'in';
	sheet.type('waist_girth', '29 1/8');
	sheet.type('waist_girth', '29 1/4', 1);
	await sheet.judged();
	await vi.waitFor(() => {
		const saved = asked.filter((a) => a.url.endsWith('/under-way')).at(-1);
		expect(saved?.body.readings).toEqual({
			bust_girth: { text: '92', unit: 'cm', again: [] },
			waist_girth: { text: '29 1/8', unit: 'in', again: [{ text: '29 1/4', unit: 'in' }] },
		});
	});
});

test('only the judgement of what is typed now settles it, not an older one that comes in meanwhile', async () => {
	let letGo: () => void = () => {};
	const held = new Promise<void>((done) => (letGo = done));
	let judgements = 0;
	answers = async (url) => {
		if (!url.endsWith('/review')) return json({});
		judgements += 1;
		const mine = judgements;
		if (mine === 1) await held;
		return json({ ...REVIEW, missing: [[String(mine)]] });
	};
	const sheet = taking('w', null, null, null);
	sheet.type('bust_girth', '9');
	sheet.type('bust_girth', '92');
	let settled = false;
	const waiting = sheet.judged().then(() => (settled = true));
	await Promise.resolve();
	expect(settled).toBe(false);
	letGo();
	await waiting;
	expect(sheet.review?.missing).toEqual([['2']]);
});

test('who waits for a judgement while more is typed is told of the newest, and not left waiting', async () => {
	let letGo = (): void => {};
	const held = new Promise<void>((done) => (letGo = done));
	answers = async (url) => {
		if (url.endsWith('/review')) await held;
		return json(url.endsWith('/review') ? REVIEW : {});
	};
	const sheet = taking('w', null, null, null);
	const early = sheet.judged();
	sheet.type('bust_girth', '92');
	const late = sheet.judged();
	letGo();
	await Promise.all([early, late]);
	expect(sheet.review).not.toBeNull();
});

test('a reading keeps the unit in which it was typed; a new one takes the unit that is typed in now', () => {
	const sheet = taking('w', KEPT, null, null);
	expect(sheet.unit('bust_girth')).toBe('in');
	expect(sheet.unit('bust_girth', 1)).toBe('in');
	expect(sheet.unit('waist_girth', 1)).toBe('cm');
	reading.unit = 'in';
	expect(sheet.unit('waist_girth')).toBe('cm');
	expect(sheet.unit('waist_girth', 1)).toBe('in');
	expect(sheet.unit('hip_girth')).toBe('in');
});

test('left and right begin as the whole and come together again', () => {
	const sheet = taking('w', null, null, null);
	sheet.type('arm_length', '59');
	sheet.setSides('arm_length', true);
	expect(sheet.hasSides('arm_length')).toBe(true);
	expect(sheet.text('arm_length.right')).toBe('59');
	sheet.type('arm_length.right', '60');
	expect(sheet.text('arm_length.left')).toBe('59');
	expect(sheet.isTaken('arm_length')).toBe(true);
	sheet.setSides('arm_length', false);
	expect(sheet.text('arm_length')).toBe('59');
	expect(sheet.hasSides('arm_length')).toBe(false);
});

test('a file’s measures come onto the sheet and leave the others', () => {
	const sheet = taking('w', KEPT, null, null);
	sheet.bring({
		taken_on: '2026-11-22',
		taken_by: 'scan',
		worn: 'scan by a stand-in',
		readings: { bust_girth: { text: '93.1 cm', unit: 'cm', again: [] } },
	});
	expect(sheet.text('bust_girth')).toBe('93.1 cm');
	expect(sheet.text('waist_girth')).toBe('74');
	expect(sheet.takenBy).toBe('scan');
});

test('what is typed over a chart’s size is somebody’s own', () => {
	const sheet = taking('w', { ...KEPT, taken_by: 'chart' }, null, null);
	expect(sheet.takenBy).toBe('chart');
	sheet.type('waist_girth', '75');
	expect(sheet.takenBy).toBe('helper');
});

test('a sheet that could not be kept stays, with the problem; one that was is forgotten here', async () => {
	const sheet = taking('w', null, null, null);
	sheet.type('bust_girth', 'wide');
	answers = () =>
		json(
			{ title: 'unreadable measure', detail: 'Bust girth: “wide” is not a length.', fix: 'Type it again.' },
			422,
		);
	expect(await sheet.keep()).toBeNull();
	expect(sheet.problem?.message).toContain('wide');
	expect(localStorage.getItem('izett-sheet-w')).toContain('wide');
	answers = () => json(KEPT, 201);
	expect(await sheet.keep()).toEqual(KEPT);
	expect(localStorage.getItem('izett-sheet-w')).toBeNull();
	expect(sheet.problem).toBeNull();
});

test('without a server the sheet is typed on, and the problem goes when it answers again', async () => {
	const sheet = taking('w', null, null, null);
	await sheet.judged();
	answers = () => Promise.reject(new TypeError('Failed to fetch'));
	sheet.type('bust_girth', '92');
	await sheet.judged();
	expect(sheet.problem?.offline).toBe(true);
	expect(localStorage.getItem('izett-sheet-w')).toContain('92');
	answers = () => json(REVIEW);
	sheet.type('waist_girth', '74');
	await sheet.judged();
	expect(sheet.problem).toBeNull();
});

test('starting afresh drops the sheet under way and begins from the last one kept', async () => {
	const sheet = taking('w', KEPT, null, null);
	sheet.type('bust_girth', '99');
	await sheet.startAfresh();
	expect(sheet.text('bust_girth')).toBe('36 1/2');
	expect(asked.some((a) => a.method === 'DELETE' && a.url.endsWith('/under-way'))).toBe(true);
});

test('a stage that is left asks for nothing more', async () => {
	const sheet = taking('w', null, null, null);
	await sheet.judged();
	const before = asked.length;
	sheet.leave();
	sheet.pointed = 'bust_girth';
	await new Promise((done) => setTimeout(done, 20));
	expect(asked.length).toBe(before);
});

test('what another page has gone on with is not written over: one of the two is chosen', async () => {
	const there = { ...underWay('2026-11-27T10:00:00Z', '101'), version: 5 };
	answers = (url) =>
		url.endsWith('/under-way')
			? json({ title: 'sheet changed', detail: '', fix: '', under_way: there }, 412)
			: json(REVIEW);
	const sheet = taking('w', null, null, null);
	sheet.type('bust_girth', '92');
	await vi.waitFor(() => expect(sheet.elsewhere?.version).toBe(5));
	expect(sheet.text('bust_girth')).toBe('92');
	answers = () => json({ ...REVIEW, version: 6 });
	sheet.goOnHere();
	await vi.waitFor(() =>
		expect(asked.filter((a) => a.url.endsWith('/under-way')).at(-1)?.body.version).toBe(5),
	);
	expect(sheet.text('bust_girth')).toBe('92');
	sheet.elsewhere = there;
	sheet.takeOver();
	expect(sheet.text('bust_girth')).toBe('101');
	expect(sheet.elsewhere).toBeNull();
});

test.each(['{', '[]', '"text"', '{"readings": 3, "at": 1}'])('a damaged store is told: %s', (text) => {
	localStorage.setItem('izett-sheet-w', text);
	const sheet = taking('w', KEPT, null, null);
	expect(sheet.lost).toContain('damaged');
	expect(sheet.text('bust_girth')).toBe('36 1/2');
	expect(localStorage.getItem('izett-sheet-w')).toBeNull();
});

test('a browser that keeps nothing is told of, and the sheet is typed all the same', () => {
	const own = globalThis.localStorage;
	const refusing = () => {
		throw new DOMException('full', 'QuotaExceededError');
	};
	vi.stubGlobal('localStorage', { getItem: () => null, setItem: refusing, removeItem: refusing });
	const sheet = taking('w', null, null, null);
	sheet.type('bust_girth', '92');
	expect(sheet.text('bust_girth')).toBe('92');
	expect(sheet.lost).toContain('cannot keep');
	vi.stubGlobal('localStorage', own);
});

describe('a judgement that takes longer than the pause in typing', () => {
	let judge: () => void;
	let sheet: SheetTaking;
	const advised = (): number => asked.filter((a) => a.url.endsWith('/advice')).length;

	beforeEach(async () => {
		vi.useFakeTimers();
		const slow = new Promise<Response>((done) => (judge = () => done(json({ ...REVIEW, can_draft: true }))));
		answers = (url) => (url.endsWith('/review') ? slow : json({}));
		sheet = taking('w', KEPT, null, null);
		await vi.advanceTimersByTimeAsync(5000);
	});

	afterEach(() => vi.useRealTimers());

	test('what to take next is asked for once it is there', async () => {
		expect(advised()).toBe(0);
		judge();
		await vi.advanceTimersByTimeAsync(0);
		expect(advised()).toBe(1);
	});

	test('nothing is asked for where the sheet was left meanwhile', async () => {
		sheet.leave();
		judge();
		await vi.advanceTimersByTimeAsync(0);
		expect(advised()).toBe(0);
	});
});
