import { expect, test } from 'vitest';
import cases from '../../../tests/lengths.json';
import { show, type Unit } from './units.svelte';

test('lengths are shown as the core shows them', () => {
	for (const { cm, unit, shown } of cases) {
		expect(`${show(cm, unit as Unit)} ${unit}`, `${cm} cm in ${unit}`).toBe(shown);
	}
});
