import { describe, expect, it } from 'vitest';
import type { Piece, Recipe } from '../../lib/api/client';
import { newStep } from '../../lib/desk/recipe';
import { cornerOf, neighbours, saidOf, turningOf, withCorner, withSaid, withTurning } from './finishing';

const EMPTY = { steps: [] } as unknown as Recipe;

describe('finish steps of what is pointed at', () => {
	it('keeps one step of a line, and takes it out where it says nothing', () => {
		const turned = withTurning(EMPTY, 'skirt.hem', { depth: 4, under: 1 });
		const deeper = withTurning(turned, 'skirt.hem', { depth: 6, under: 0 });
		expect(deeper.steps).toHaveLength(1);
		expect(deeper.steps[0]!.uid).toBe(turned.steps[0]!.uid);
		expect(turningOf(deeper, 'skirt.hem')).toEqual({ depth: 6, under: 0 });
		expect(turningOf(deeper, 'skirt.waist')).toBeNull();
		expect(withTurning(deeper, 'skirt.hem', null).steps).toHaveLength(0);
	});

	it('tells the two ends of a line apart', () => {
		const squared = withCorner(EMPTY, 'front.neck', true, 'square');
		const both = withCorner(squared, 'front.neck', false, 'folded');
		expect([cornerOf(both, 'front.neck', true), cornerOf(both, 'front.neck', false)]).toEqual([
			'square',
			'folded',
		]);
		expect(withCorner(both, 'front.neck', true, null).steps).toHaveLength(1);
	});

	it('says of a piece what is not as usual, and nothing else', () => {
		const usual = saidOf(EMPTY, 'front');
		const whole = withSaid(EMPTY, 'front', { ...usual, whole: true });
		expect(saidOf(whole, 'front')).toEqual({ ...usual, whole: true });
		expect(saidOf(whole, 'back')).toEqual(usual);
		expect(withSaid(whole, 'front', usual).steps).toHaveLength(0);
	});

	it('says something of one piece where a step speaks of several', () => {
		const usual = saidOf(EMPTY, 'front');
		const both = {
			steps: [newStep('ready_piece', { pieces: ['front', 'back'], cloth: 'lining' })],
		} as unknown as Recipe;
		expect(saidOf(both, 'back').cloth).toBe('lining');
		const own = withSaid(both, 'front', { ...usual, cloth: 'lining', whole: true });
		expect(own.steps).toHaveLength(2);
		expect(saidOf(own, 'front').whole).toBe(true);
		expect(saidOf(own, 'back')).toEqual(saidOf(both, 'back'));
		// As usual again, against what is said of both.
		expect(saidOf(withSaid(own, 'front', usual), 'front')).toEqual(usual);
		expect(withSaid(own, 'front', usual).steps).toHaveLength(2);
	});

	it('finds what a line meets, wherever the ring begins', () => {
		const edge = (lineage: string, role = 'side') => ({ lineage, role, start: '', end: '' });
		const edges = [
			edge('side'),
			edge('dart', 'dart_leg'),
			edge('armhole'),
			edge('neck'),
			edge('hem'),
			edge('side'),
		];
		expect(neighbours({ edges } as unknown as Piece, 'side')).toEqual(['hem', 'armhole']);
		expect(neighbours({ edges } as unknown as Piece, 'neck')).toEqual(['armhole', 'hem']);
	});
});
