import { flushSync, mount, unmount } from 'svelte';
import { expect, test } from 'vitest';
import type { BodyDrawing as Figure } from '../api/client';
import BodyDrawing from './BodyDrawing.svelte';

const figure: Figure = {
	outlines: {
		front: [
			[-15, -100],
			[15, -100],
			[15, 60],
			[-15, 60],
		],
		side: [
			[-8, -100],
			[10, -100],
			[10, 60],
			[-8, 60],
		],
	},
	details: {
		front: [
			[
				[0, 0],
				[0, 10],
			],
		],
	},
	tapes: {
		waist_girth: [
			{
				view: 'front',
				line: [
					[-12, 0],
					[12, 0],
				],
			},
			{
				view: 'side',
				line: [
					[-7, 0],
					[8, 0],
				],
			},
		],
		height: [
			{
				view: 'front',
				line: [
					[0, 60],
					[0, -100],
				],
			},
		],
	},
	levels: {},
};

function drawn(props: Record<string, unknown>) {
	const target = document.createElement('div');
	const component = mount(BodyDrawing, {
		target,
		props: { figure, view: 'front', label: 'front', ...props },
	});
	flushSync();
	return { target, end: () => unmount(component) };
}

test('only the tapes of this view are drawn, and the lit one stands out', () => {
	const { target, end } = drawn({ view: 'side', tapes: ['waist_girth', 'height'], lit: 'waist_girth' });
	expect([...target.querySelectorAll('[data-tape]')].map((e) => e.getAttribute('data-tape'))).toEqual([
		'waist_girth',
	]);
	expect(target.querySelectorAll('[data-lit=waist_girth]')).toHaveLength(1);
	void end();
});

test('the body is shown between two heights, y turned up', () => {
	const { target, end } = drawn({ from: -20, to: 60 });
	const [left, top, width, height] = target
		.querySelector('svg')!
		.getAttribute('viewBox')!
		.split(' ')
		.map(Number);
	expect(top).toBe(-63);
	expect(height).toBe(86);
	expect([left, width]).toEqual([-18, 36]);
	void end();
});

test('pointing at a tape and choosing it are told', () => {
	const told: (string | null)[] = [];
	const { target, end } = drawn({
		tapes: ['waist_girth'],
		onpoint: (s: string | null) => told.push(s),
		onchoose: (s: string) => told.push(`chosen ${s}`),
	});
	const reach = target.querySelector('[data-tape=waist_girth]')!;
	reach.dispatchEvent(new Event('pointerenter'));
	reach.dispatchEvent(new Event('click', { bubbles: true }));
	expect(told).toEqual(['waist_girth', 'chosen waist_girth']);
	void end();
});
