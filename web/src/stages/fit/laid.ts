import type { Trial } from '../../lib/desk/trial.svelte';

/** A remedy that is laid under the chosen one, and its pencil. */
export interface Laid {
	title: string;
	pencil: string;
	trial: Trial;
}
