/**
 * Given pieces while they are typed: tried on the table at every change, kept when the maker says so, and until then in this
 * browser, so that nothing typed is lost when the page is closed.
 */
import type { Given } from '../../lib/api/client';
import type { Desk } from '../../lib/desk/desk.svelte';
import { PutAside } from '../../lib/desk/aside.svelte';
import { merged, withGiven } from './given';

export class Typed {
	/** Whether what is shown was put back from an earlier visit. */
	restored = $state(false);

	constructor(private readonly desk: Desk) {}

	private get aside(): PutAside<{ base: Given; mine: Given }> {
		return (this.own ??= new PutAside(`izett-given-${this.desk.job?.id}`));
	}
	private own: PutAside<{ base: Given; mine: Given }> | null = null;

	/** Whether this browser could not put it aside. */
	get unsafe(): boolean {
		return this.aside.unsafe;
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
		const before = this.aside.read();
		if (!job || !before) return;
		try {
			const given = merged(before.base, before.mine, job.recipe.given);
			if (JSON.stringify(given) === JSON.stringify(job.recipe.given)) return;
			this.restored = true;
			this.desk.trial.try(withGiven(job.recipe, () => given));
		} catch {
			// What is damaged cannot be put back.
			this.aside.drop();
		}
	}

	/** Try a change. */
	try(given: Given): void {
		const { job } = this.desk;
		if (!job) return;
		this.desk.trial.try(withGiven(job.recipe, () => given));
		this.aside.write({ base: job.recipe.given, mine: given });
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
			this.aside.drop();
			this.restored = false;
		}
		return kept;
	}

	/** Go back to what is kept. */
	letGo(): void {
		this.aside.drop();
		this.restored = false;
		this.desk.leave();
	}
}
