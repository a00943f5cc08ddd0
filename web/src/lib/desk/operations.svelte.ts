/** The kinds of steps with their fields, loaded once. */
import { api, type Operation } from '../api/client';
import { Loaded } from '../api/loaded.svelte';

class Operations {
	private readonly kinds = new Loaded<Operation[]>();

	async load(): Promise<void> {
		if (!this.kinds.value && !this.kinds.busy) await this.kinds.load(api.GET('/api/operations'));
	}

	of(key: string): Operation | undefined {
		return this.kinds.value?.find((operation) => operation.key === key);
	}
}

export const operations = new Operations();
