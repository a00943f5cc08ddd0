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
		const cloths = { ...this.now.cloths };
		if (cloth) cloths[use] = { ...cloth, use };
		else delete cloths[use];
		return this.keep({ ...this.now, cloths }, cloth ? 'take the cloth' : 'put the cloth away');
	}

	async sum(kept: SumKept): Promise<boolean> {
		const sums = this.now.sums ?? [];
		const known = sums.some((one) => one.uid === kept.uid);
		const after = known ? sums.map((one) => (one.uid === kept.uid ? kept : one)) : [...sums, kept];
		return this.keep({ ...this.now, sums: after }, 'keep the sum');
	}

	async withoutSum(uid: string): Promise<boolean> {
		const sums = (this.now.sums ?? []).filter((one) => one.uid !== uid);
		return this.keep({ ...this.now, sums }, 'let go of the sum');
	}

	/** Cut sizes together; null cuts for the wearer. */
	async sizes(run: SizesOfRun | null): Promise<boolean> {
		return this.keep({ ...this.now, run }, 'which sizes are cut');
	}

	async cut(times: number): Promise<boolean> {
		return this.keep({ ...this.now, times }, 'how many are cut');
	}

	private async keep(table: CutTableIn, words: string): Promise<boolean> {
		const kept = await this.desk.deeds.layOut(table, words);
		if (kept) await this.load();
		return kept;
	}
}
