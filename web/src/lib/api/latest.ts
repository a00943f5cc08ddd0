/**
 * One call in flight, and only the newest waiting: aborted calls still run on the server and slow the rest, so older
 * wishes are dropped before they are sent.
 */
export class Latest<Wish, Result> {
	private running = false;
	private waiting: { wish: Wish } | null = null;

	constructor(
		private readonly work: (wish: Wish) => Promise<Result>,
		private readonly done: (result: Result, wish: Wish) => void,
		private readonly failed: (error: unknown, wish: Wish) => void,
	) {}

	/** Wish for a result; of several wishes made meanwhile only the last is worked. */
	wish(wish: Wish): void {
		this.waiting = { wish };
		if (!this.running) void this.run();
	}

	private async run(): Promise<void> {
		this.running = true;
		while (this.waiting) {
			const { wish } = this.waiting;
			this.waiting = null;
			try {
				const result = await this.work(wish);
				this.done(result, wish);
			} catch (error) {
				this.failed(error, wish);
			}
		}
		this.running = false;
	}
}
