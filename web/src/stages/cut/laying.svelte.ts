/** A lay plan being looked for, looked at and moved by hand; nothing of the job changes until it is kept. */
import {
	answered,
	api,
	asProblem,
	type ClothFold,
	type ClothUse,
	type Laid,
	type Problem,
} from '../../lib/api/client';
import { LongWork } from '../../lib/api/longWork.svelte';
import { newUid } from '../../lib/desk/recipe';
import type { Desk } from '../../lib/desk/desk.svelte';
import { allRead } from '../../lib/parts/reads';
import { reading } from '../../lib/units.svelte';
import type { CutTableKept } from './cutTable.svelte';

export interface By {
	across?: number;
	along?: number;
	turn?: number;
	flipped?: boolean;
	snap?: boolean;
}

export class Laying {
	readonly work = new LongWork();
	use = $state<ClothUse>('outer');
	/** What was looked for and found, or moved by hand. */
	private found = $state.raw<{ use: ClothUse; laid: Laid } | null>(null);
	byHand = $state(false);
	current = $state<number | null>(null);
	/** Why a piece could not be moved. */
	problem = $state.raw<Problem | null>(null);

	constructor(
		private readonly desk: Desk,
		private readonly table: CutTableKept,
	) {}

	/** The plan that lies on the table: what is being found, what was found, or what is kept. */
	get shown(): Laid | null {
		if (this.work.underWay && this.work.work?.result) return this.work.work.result as Laid;
		if (this.found?.use === this.use) return this.found.laid;
		const kept = this.table.value?.kept.plans?.[this.use];
		if (!kept) return null;
		const { plan, of } = kept;
		return {
			plan,
			of,
			bought: plan.cloth.washed ? plan.length / (1 - plan.cloth.shrinkage[0]!) : plan.length,
			headline: '',
			decides: '',
			too_little: null,
			thumb: '',
			faults: [],
			savings: [],
		};
	}

	/** Whether it is other than what is kept. */
	get fresh(): boolean {
		return this.found?.use === this.use && !this.work.underWay;
	}

	async begin(fold: ClothFold | null, effort: number): Promise<void> {
		const id = this.desk.job?.id;
		// How many are cut may have been typed just before.
		if (!id || !(await allRead())) return;
		await this.table.settled;
		const use = this.use;
		this.current = null;
		this.problem = null;
		const laid = await this.work.begin<Laid>(
			api.POST('/api/jobs/{job_id}/lay-plans', {
				params: { path: { job_id: id } },
				body: { uid: newUid(), use, fold, seed: 1, effort },
			}),
		);
		if (!laid) return;
		this.found = { use, laid };
		this.byHand = false;
	}

	/** Take what has been found so far. */
	async stop(): Promise<void> {
		const laid = this.shown;
		await this.work.stop();
		if (laid) this.found = { use: this.use, laid };
	}

	/** Put the piece in hand elsewhere. */
	async move(by: By): Promise<void> {
		const id = this.desk.job?.id;
		const now = this.shown;
		if (!id || !now || this.current === null || this.work.underWay) return;
		try {
			const laid = await answered(
				api.POST('/api/jobs/{job_id}/lay-plans/moved', {
					params: { path: { job_id: id } },
					body: {
						use: this.use,
						plan: now.plan,
						number: this.current,
						across: by.across ?? 0,
						along: by.along ?? 0,
						turn: by.turn ?? null,
						flipped: by.flipped ?? null,
						snap: by.snap ?? true,
						unit: reading.unit,
					},
				}),
			);
			this.found = { use: this.use, laid: { ...(laid as Laid), savings: [] } };
			this.byHand = true;
			this.problem = null;
		} catch (error) {
			this.problem = asProblem(error);
		}
	}

	async keep(): Promise<void> {
		const laid = this.shown;
		if (!laid || !(await this.desk.deeds.keepPlan(this.use, laid.plan, this.byHand))) return;
		await this.table.load();
		this.found = null;
	}

	/** Go back to the plan that is kept. */
	leave(): void {
		this.found = null;
		this.problem = null;
		this.current = null;
	}
}
