import { answered, api, asProblem, Problem, type Answer, type Work } from './client';

/** Milliseconds between two looks at how far the work has come. */
const LOOK_EVERY = 250;

/**
 * Work on the server that takes long: begun, watched and stopped. The server keeps what came of it, so that the page may
 * be loaded again meanwhile: who asks the same again is given the work that is under way, or its result.
 */
export class LongWork {
	work = $state.raw<Work | null>(null);
	problem = $state.raw<Problem | null>(null);
	private asked = 0;

	get underWay(): boolean {
		return this.work?.state === 'waiting' || this.work?.state === 'running';
	}

	get stopped(): boolean {
		return this.work?.state === 'stopped';
	}

	/** Begin it and wait for it; return its result, or null where it came to nothing or something newer was asked for. */
	async begin<Result>(call: Promise<Answer<Work>>): Promise<Result | null> {
		const mine = (this.asked += 1);
		const isMine = (): boolean => mine === this.asked;
		this.problem = null;
		try {
			let work: Work | undefined = await answered(call);
			while (isMine()) {
				this.work = work ?? null;
				if (!work || !this.underWay) break;
				await new Promise((done) => setTimeout(done, LOOK_EVERY));
				if (!isMine()) break;
				const path: { uid: string } = { uid: work.uid };
				work = await answered<Work | undefined>(api.GET('/api/long-work/{uid}', { params: { path } }));
			}
			// Work is deleted with the wearer whom it was for.
			if (!isMine() || !work) return null;
			const { problem } = work;
			if (problem) this.problem = new Problem(500, problem.code, problem.message, problem.fix);
			// What kind of work it is says what comes of it.
			return (work.result ?? null) as Result | null;
		} catch (error) {
			if (isMine()) {
				this.problem = asProblem(error);
				this.work = null;
			}
			return null;
		}
	}

	/** Stop it. */
	async stop(): Promise<void> {
		if (!this.work || !this.underWay) return;
		const path = { uid: this.work.uid };
		this.asked += 1;
		try {
			const call = api.POST('/api/long-work/{uid}/stop', { params: { path } });
			this.work = (await answered<Work | undefined>(call)) ?? null;
		} catch (error) {
			this.problem = asProblem(error);
		}
	}

	/** Wait for nothing any more: the work goes on, its result is kept. */
	leave(): void {
		this.asked += 1;
	}
}
