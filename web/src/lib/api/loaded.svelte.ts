import { answered, asProblem, type Answer, type Problem } from './client';

/**
 * Something read from the server. Asked again, the newest question counts: a late answer to an older one is dropped.
 * What was read stays until the new is there.
 */
export class Loaded<T> {
	value = $state.raw<T | null>(null);
	problem = $state.raw<Problem | null>(null);
	busy = $state(false);
	private asked = 0;

	/** `tell` is told what went wrong, where the one who asks does not show it by itself. */
	constructor(private readonly tell: (problem: Problem) => void = () => {}) {}

	/** Read it; return it, or null where that failed or something newer was asked for meanwhile. */
	async load(call: Promise<Answer<unknown>>): Promise<T | null> {
		const mine = (this.asked += 1);
		this.busy = true;
		try {
			const found = (await answered(call)) as T;
			if (mine !== this.asked) return null;
			this.value = found;
			this.problem = null;
			return found;
		} catch (error) {
			if (mine !== this.asked) return null;
			this.problem = asProblem(error);
			this.tell(this.problem);
			return null;
		} finally {
			if (mine === this.asked) this.busy = false;
		}
	}

	/** Put it away: nothing is read any more, and an answer under way is dropped. */
	clear(): void {
		this.asked += 1;
		this.value = this.problem = null;
		this.busy = false;
	}
}
