import { expect, test } from 'vitest';
import type { Check } from '../api/client';
import { newlyOdd, oddOf } from './checks';

const check = (verdict: string, where: string, half = 'both'): Check =>
	({ check: 'seams_match', aspect: '', verdict, where: [where], half }) as unknown as Check;

test('what fails or warns is odd; what passes or is accepted is not', () => {
	const verdicts = ['fails', 'passes', 'warns', 'accepted', 'not_applicable'];
	expect(oddOf(verdicts.map((verdict) => check(verdict, 'side'))).map((c) => c.verdict)).toEqual([
		'fails',
		'warns',
	]);
	expect(oddOf(undefined)).toEqual([]);
});

test('what did not hold before is not new, on another seam or on the other half it is', () => {
	const before = [check('fails', 'side'), check('passes', 'shoulder')];
	const after = [check('warns', 'side'), check('fails', 'shoulder'), check('fails', 'side', 'left')];
	expect(newlyOdd(before, after)).toEqual([after[1], after[2]]);
});
