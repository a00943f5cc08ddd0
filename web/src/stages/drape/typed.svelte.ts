/**
 * Given pieces while they are typed: tried on the table at every change, kept when the maker says so, and until then in this
 * browser, so that nothing typed is lost when the page is closed.
 */
import type { Given } from '../../lib/api/client';
import type { Desk } from '../../lib/desk/desk.svelte';
import { store } from '../../lib/store';
import { merged, withGiven } from './given';

export class Typed {
	/** Whether what is shown was put back from an earlier visit. */
	restored = $state(false);
	/** Whether this browser could not put it aside. */
	unsafe = $state(false);

	constructor(private readonly desk: Desk) {}

	private get place(): string {
		return `izett-given-${this.desk.job?.id}`;
	}

	/** What is on the table. */
	get given(): Given {
		return (this.desk.trial.recipe ?? this.desk.job!.recipe).given;
	}

	/** Whether it differs from what is kept. */
	get unkept(): boolean {
		const { job } = this.desk;
		return !!job && JSON.stringify(this.given) !== JSON.stringify(job.recipe.given);
	}

	/** Begin with what is kept, or with what was typed here before and not kept. */
	begin(): void {
		const { job } = this.desk;
		const text = store.read(this.place);
		if (!job || !text) return;
		try {
			const { base, mine } = JSON.parse(text) as { base: Given; mine: Given };
			const given = merged(base, mine, job.recipe.given);
			if (JSON.stringify(given) === JSON.stringify(job.recipe.given)) return;
			this.restored = true;
			this.desk.trial.try(withGiven(job.recipe, () => given));
		} catch {
			// What is damaged cannot be put back.
			store.drop(this.place);
		}
	}

	/** Try a change. */
	try(given: Given): void {
		const { job } = this.desk;
		if (!job) return;
		this.desk.trial.try(withGiven(job.recipe, () => given));
		this.unsafe = !store.write(this.place, JSON.stringify({ base: job.recipe.given, mine: given }));
	}

	/** Keep what is on the table. */
	async keep(words: string): Promise<boolean> {
		const base = this.desk.job!.recipe.given;
		const mine = this.given;
		const kept = await this.desk.deeds.keep(
			(recipe) => withGiven(recipe, (theirs) => merged(base, mine, theirs)),
			words,
		);
		if (kept) {
			store.drop(this.place);
			this.restored = false;
		}
		return kept;
	}

	/** Go back to what is kept. */
	letGo(): void {
		store.drop(this.place);
		this.restored = false;
		this.desk.leave();
	}
}
