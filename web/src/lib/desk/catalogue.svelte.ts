/** The catalogue, loaded once: measures, findings, purposes, cautions. */
import { api, type Catalogue, type Measure, type Problem, type StarterSet } from '../api/client';
import { Loaded } from '../api/loaded.svelte';

/** Chosen in place of a set of blocks where the garment comes from cloth, film or paper. */
export const GIVEN = 'given';

/** What a garment begins with: the blocks that are drafted, how close, in what. */
type Beginning = Pick<StarterSet, 'blocks' | 'fit' | 'cloth'>;
const NOTHING_DRAFTED: Beginning = { blocks: [], fit: 'fitted', cloth: { kind: 'woven', stretch: 0 } };

class Shelf {
	readonly catalogue = new Loaded<Catalogue>();

	get all(): Catalogue | null {
		return this.catalogue.value;
	}

	get problem(): Problem | null {
		return this.catalogue.problem;
	}

	async load(): Promise<void> {
		if (!this.all && !this.catalogue.busy) await this.catalogue.load(api.GET('/api/catalogue'));
	}

	/** The starter set of a key; the first where there is none of that name. */
	set(key: string): StarterSet | undefined {
		return this.all?.sets.find((set) => set.key === key) ?? this.all?.sets[0];
	}

	/** What a garment begins with: a set of blocks, or none. */
	beginning(key: string): Beginning | undefined {
		return key === GIVEN ? NOTHING_DRAFTED : this.set(key);
	}

	/** The measures that some blocks can use, and those that they cannot do without. */
	measuresOf(blocks: readonly string[]): { used: Set<string>; required: Set<string> } {
		const of = (this.all?.blocks ?? []).filter((block) => blocks.includes(block.key));
		return {
			used: new Set(of.flatMap((block) => block.used)),
			required: new Set(of.flatMap((block) => block.required.flat())),
		};
	}

	measure(symbol: string): Measure | undefined {
		return this.all?.measures.find((m) => m.symbol === symbol);
	}

	/** The name of a measure, or the symbol in words. */
	name(symbol: string): string {
		return this.measure(symbol)?.name ?? symbol.replaceAll('_', ' ');
	}
}

export const shelf = new Shelf();
