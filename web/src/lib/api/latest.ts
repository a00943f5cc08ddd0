/** A lane on which one call is in flight at a time, in the order of asking: calls side by side only slow each other. */
export class Lane {
	private busy = false;
	private readonly queue: (() => void)[] = [];

	/** Call at once where the lane is free, else in turn. */
	async run<T>(call: () => Promise<T>): Promise<T> {
		if (this.busy) await new Promise<void>((turn) => this.queue.push(turn));
		this.busy = true;
		try {
			return await call();
		} finally {
			const next = this.queue.shift();
			// Handed over, not let go, so that nobody slips in between.
			if (next) next();
			else this.busy = false;
		}
	}
}

/**
 * One call in flight, and only the newest waiting: aborted calls still run on the server and slow the rest, so older
 * wishes are dropped before they are sent. Several that share a lane take turns on it.
 */
export class Latest<Wish, Result> {
	private running = false;
	private waiting: { wish: Wish } | null = null;

	constructor(
		private readonly work: (wish: Wish) => Promise<Result>,
		private readonly done: (result: Result, wish: Wish) => void,
		private readonly failed: (error: unknown, wish: Wish) => void,
		private readonly lane = new Lane(),
	) {}

	/** Wish for a result; of several wishes made meanwhile only the last is worked. */
	wish(wish: Wish): void {
		this.waiting = { wish };
		if (!this.running) void this.run();
	}

	private async run(): Promise<void> {
		this.running = true;
		while (this.waiting) await this.lane.run(() => this.next());
		this.running = false;
	}

	private async next(): Promise<void> {
		const { wish } = this.waiting!;
		this.waiting = null;
		try {
			const result = await this.work(wish);
			this.done(result, wish);
		} catch (error) {
			this.failed(error, wish);
		}
	}
}
