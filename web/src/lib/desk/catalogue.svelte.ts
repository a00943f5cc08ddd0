/** The catalogue, loaded once: measures, findings, purposes, cautions. */
import { answered, api, asProblem, type Catalogue, type Measure, type Problem } from '../api/client';

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

	measure(symbol: string): Measure | undefined {
		return this.all?.measures.find((m) => m.symbol === symbol);
	}

	/** The name of a measure, or the symbol in words. */
	name(symbol: string): string {
		return this.measure(symbol)?.name ?? symbol.replaceAll('_', ' ');
	}
}

export const shelf = new Shelf();
