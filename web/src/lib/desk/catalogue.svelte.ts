/** The catalogue, loaded once: measures, findings, purposes, cautions. */
import {
	answered,
	api,
	asProblem,
	type Catalogue,
	type Measure,
	type Problem,
	type StarterSet,
} from '../api/client';

class Shelf {
	all = $state<Catalogue | null>(null);
	problem = $state<Problem | null>(null);

	async load(): Promise<void> {
		if (this.all) return;
		try {
			this.all = await answered(api.GET('/api/catalogue'));
			this.problem = null;
		} catch (error) {
			this.problem = asProblem(error);
		}
	}

	/** The starter set of a key; the first where there is none of that name. */
	set(key: string): StarterSet | undefined {
		return this.all?.sets.find((set) => set.key === key) ?? this.all?.sets[0];
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
