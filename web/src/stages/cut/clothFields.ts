/** The numbers of a cloth, as a maker types them: shares in percent. */
import type { Cloth } from '../../lib/api/client';

export interface NumberOfCloth {
	label: string;
	/** What a worksheet calls it, where its result can be this. */
	key?: string;
	unit: 'cm' | '%' | 'g/m²' | '';
	low: number;
	high: number;
	/** What it is now; null where nothing is known. */
	get: (cloth: Cloth) => number | null;
	/** The cloth with another number. */
	set: (cloth: Cloth, value: number) => Partial<Cloth>;
	/** The cloth with none, where that can be. */
	empty?: Partial<Cloth>;
}

type Single = 'width' | 'selvedge' | 'weight' | 'price' | 'gap';
type Pair = 'repeat' | 'shrinkage' | 'stretch';

function single(
	name: Single,
	label: string,
	unit: NumberOfCloth['unit'],
	low: number,
	high: number,
): NumberOfCloth {
	return { label, unit, low, high, get: (c) => c[name], set: (_, value) => ({ [name]: value }) };
}

/** One of two numbers: across and along for a repeat, warp and weft for a share. */
function ofPair(name: Pair, at: 0 | 1, label: string, high: number): NumberOfCloth {
	const isShare = name !== 'repeat';
	const times = isShare ? 100 : 1;
	return {
		label,
		key: `${name}_${at ? 'weft' : 'warp'}`,
		unit: isShare ? '%' : 'cm',
		low: 0,
		high,
		get: (c) => c[name][at]! * times,
		set: (c, value) => ({ [name]: c[name].map((was, i) => (i === at ? value / times : was)) }),
	};
}

export const SIZE: NumberOfCloth[] = [
	single('width', 'Width, selvedge to selvedge', 'cm', 10, 400),
	single('selvedge', 'Not used at each edge', 'cm', 0, 20),
];

export const REPEATS: NumberOfCloth[] = [
	ofPair('repeat', 0, 'Repeat across the cloth', 400),
	ofPair('repeat', 1, 'Repeat along the cloth', 500),
];

export const SHARES: NumberOfCloth[] = [
	ofPair('shrinkage', 0, 'Shrinkage along the warp', 30),
	ofPair('shrinkage', 1, 'Shrinkage along the weft', 30),
	ofPair('stretch', 0, 'Stretch along the warp', 400),
	ofPair('stretch', 1, 'Stretch along the weft', 400),
	{
		label: 'Springs back',
		key: 'recovery',
		unit: '%',
		low: 0,
		high: 100,
		get: (c) => c.recovery * 100,
		set: (_, value) => ({ recovery: value / 100 }),
	},
];

export const SHOP: NumberOfCloth[] = [
	single('weight', 'Weight', 'g/m²', 0, 5000),
	single('price', 'Price of a metre', '', 0, 1_000_000),
	{
		label: 'At hand',
		unit: 'cm',
		low: 0,
		high: 20_000,
		get: (c) => c.length ?? null,
		set: (_, length) => ({ length }),
		empty: { length: null },
	},
	single('gap', 'Left free between pieces', 'cm', 0, 10),
];
