import { expect, test } from 'vitest';
import cases from '../../../tests/lengths.json';
import { show, spoken, type Unit } from './units.svelte';

/** A text as it would be with spaces at which a line may be broken. */
const broken = (text: string): string => text.replaceAll('\u00a0', ' ');

test('a number is never parted from its fraction or its unit', () => {
	expect(spoken('Lower by ⟦3 cm⟧ at most', 'in')).toBe('Lower by 1\u00a03⁄16\u00a0in at most');
	expect(spoken('Lower by ⟦3 cm⟧', 'cm')).toBe('Lower by 3\u00a0cm');
	expect(spoken('the larger of ⟦~3⟧ and 2', 'in')).toBe('the larger of 1\u00a03⁄16 and 2');
});

test('lengths are shown as the core shows them', () => {
	for (const { cm, unit, shown } of cases) {
		expect(broken(`${show(cm, unit as Unit)} ${unit}`), `${cm} cm in ${unit}`).toBe(shown);
	}
});

test('sentences of the core are read in inches where the reader reads inches', () => {
	expect(broken(spoken('Side seams, each edge: take ⟦0.3 cm⟧ at the underarm', 'in'))).toBe(
		'Side seams, each edge: take ⅛ in at the underarm',
	);
	expect(broken(spoken('Bust ease of ⟦40 cm⟧ is outside ⟦3 cm⟧ to ⟦12 cm⟧.', 'in'))).toBe(
		'Bust ease of 15¾ in is outside 1 3⁄16 in to 4¾ in.',
	);
	expect(broken(spoken('Lower by ⟦−1.27 cm⟧', 'in'))).toBe('Lower by −½ in');
	expect(spoken('a dart of 26° and 2 edges', 'in')).toBe('a dart of 26° and 2 edges');
	expect(broken(spoken('take ⟦0.3 cm⟧', 'cm'))).toBe('take 0.3 cm');
});
