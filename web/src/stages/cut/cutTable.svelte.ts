/** The cutting table of a job: what is kept on it, and what follows of the pieces as they are now. */
import {
	api,
	type Cloth,
	type ClothUse,
	type CutTable,
	type CutTableIn,
	type SizesOfRun,
	type SumKept,
} from '../../lib/api/client';
import type { Desk } from '../../lib/desk/desk.svelte';
import { reading } from '../../lib/units.svelte';

/** A cloth that nothing is known of yet but its use. */
export function newCloth(use: ClothUse): Cloth {
	return {
		name: '',
		use,
		width: 140,
		selvedge: 1,
		fold: 'lengthwise',
		nap: false,
		grainless: use === 'interfacing',
		repeat: [0, 0],
		match: '',
		stretch: [0, 0],
		recovery: 1,
		shrinkage: [0, 0],
		washed: true,
		weight: 0,
		price: 0,
		length: null,
		gap: 0.3,
		note: '',
		swatch: '',
	};
}

export class CutTableKept {
	private readonly loaded;
	/** What is being kept: what is kept next waits for it, and so does what follows from the table. */
	settled: Promise<boolean> = Promise.resolve(true);

	constructor(private readonly desk: Desk) {
		this.loaded = desk.reads<CutTable>();
	}

	get value(): CutTable | null {
		return this.loaded.value;
	}

	async load(): Promise<void> {
		const id = this.desk.job?.id;
		if (!id) return;
		// A shop sells by the reader's unit.
		const params = { path: { job_id: id }, query: { unit: reading.unit } };
		await this.loaded.load(api.GET('/api/jobs/{job_id}/cut-table', { params }));
	}

	private get now(): CutTableIn {
		const { cloths = {}, sums = [], times = 1, run = null } = this.value?.kept ?? {};
		return { cloths, sums, times, run };
	}

	/** Keep a cloth for a use; null lets go of it. */
	async take(use: ClothUse, cloth: Cloth | null): Promise<boolean> {
		return this.keep(
			(now) => {
				const cloths = { ...now.cloths };
				if (cloth) cloths[use] = { ...cloth, use };
				else delete cloths[use];
				return { ...now, cloths };
			},
			cloth ? 'take the cloth' : 'put the cloth away',
		);
	}

	async sum(kept: SumKept): Promise<boolean> {
		return this.keep((now) => {
			const sums = now.sums ?? [];
			const known = sums.some((one) => one.uid === kept.uid);
			const after = known ? sums.map((one) => (one.uid === kept.uid ? kept : one)) : [...sums, kept];
			return { ...now, sums: after };
		}, 'keep the sum');
	}

	async withoutSum(uid: string): Promise<boolean> {
		return this.keep(
			(now) => ({ ...now, sums: (now.sums ?? []).filter((one) => one.uid !== uid) }),
			'let go of the sum',
		);
	}

	/** Cut sizes together; null cuts for the wearer. */
	async sizes(run: SizesOfRun | null): Promise<boolean> {
		return this.keep((now) => ({ ...now, run }), 'which sizes are cut');
	}

	async cut(times: number): Promise<boolean> {
		return this.keep((now) => ({ ...now, times }), 'how many are cut');
	}

	private keep(change: (now: CutTableIn) => CutTableIn, words: string): Promise<boolean> {
		this.settled = this.settled.then(async () => {
			const kept = await this.desk.deeds.layOut(change(this.now), words);
			if (kept) await this.load();
			return kept;
		});
		return this.settled;
	}
}
