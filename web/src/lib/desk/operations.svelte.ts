/** The kinds of steps with their fields, loaded once. */
import { answered, api, asProblem, type Operation, type Problem } from '../api/client';

class Operations {
	all = $state.raw<Operation[]>([]);
	problem = $state<Problem | null>(null);

	async load(): Promise<void> {
		if (this.all.length) return;
		try {
			this.all = await answered(api.GET('/api/operations'));
			this.problem = null;
		} catch (error) {
			this.problem = asProblem(error);
		}
	}

	of(key: string): Operation | undefined {
		return this.all.find((operation) => operation.key === key);
	}
}

export const operations = new Operations();
