import { expect, test } from 'vitest';
import { sold } from './words';

test('a length is sold by the ten centimetres, and by the eighth of a yard', () => {
	expect(sold(212.4, 'cm')).toBe('2.20 m');
	expect(sold(220, 'cm')).toBe('2.20 m');
	expect(sold(212.4, 'in')).toBe('2⅜ yd');
	expect(sold(91.44, 'in')).toBe('1 yd');
	expect(sold(10, 'in')).toBe('⅛ yd');
	expect(sold(0, 'in')).toBe('0 yd');
});
