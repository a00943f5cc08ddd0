import { expect, test } from 'vitest';
import cases from '../../../tests/lengths.json';
import { show, spoken, type Unit } from './units.svelte';

test('lengths are shown as the core shows them', () => {
	for (const { cm, unit, shown } of cases) {
		expect(`${show(cm, unit as Unit)} ${unit}`, `${cm} cm in ${unit}`).toBe(shown);
	}
});

test('sentences of the core are read in inches where the reader reads inches', () => {
	expect(spoken('Side seams, each edge: take ⟦0.3 cm⟧ at the underarm', 'in')).toBe(
		'Side seams, each edge: take ⅛ in at the underarm',
	);
	expect(spoken('Bust ease of ⟦40 cm⟧ is outside ⟦3 cm⟧ to ⟦12 cm⟧.', 'in')).toBe(
		'Bust ease of 15¾ in is outside 1 3⁄16 in to 4¾ in.',
	);
	expect(spoken('Lower by ⟦−1.27 cm⟧', 'in')).toBe('Lower by −½ in');
	expect(spoken('a dart of 26° and 2 edges', 'in')).toBe('a dart of 26° and 2 edges');
	expect(spoken('take ⟦0.3 cm⟧', 'cm')).toBe('take 0.3 cm');
});
