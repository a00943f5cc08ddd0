/**
 * A sheet being taken: what is typed, what the core thinks of it, and where the taking stands.
 *
 * Every change is written to this browser at once and to the workroom's server, so that the sheet can be gone on with
 * after days, here or on another page; the later of the two counts.
 */
import {
	answered,
	api,
	asProblem,
	freshName,
	type Advice,
	type LengthIn,
	type Problem,
	type Review,
	type Sheet,
	type SheetIn,
	type TakenIn,
	type UnderWay,
} from '../../lib/api/client';
import { Latest } from '../../lib/api/latest';
import { LongWork } from '../../lib/api/longWork.svelte';
import { store } from '../../lib/store';
import { reading, type Unit } from '../../lib/units.svelte';

export type Taker = 'helper' | 'alone' | 'scan' | 'chart';
type Kept = Omit<UnderWay, 'saved' | 'version'> & { at: number };

/** More readings of one measure than this settle nothing more; the core knows the same bound. */
export const MOST_READINGS = 5;
/** Milliseconds without typing after which the slower advice is asked for. */
const PAUSE = 700;

function today(): string {
	return new Date().toISOString().slice(0, 10);
}

export class SheetTaking {
	readings = $state<Record<string, TakenIn>>({});
	takenOn = $state(today());
	takenBy = $state<Taker>('helper');
	worn = $state('');
	prepared = $state<string[]>([]);
	/** The measure at which the guided taking stands. */
	place = $state('');
	review = $state.raw<Review | null>(null);
	advice = $state.raw<Advice | null>(null);
	/** The working out of what to take next. */
	readonly advising = new LongWork();
	problem = $state<Problem | null>(null);
	/** What stands on this sheet where it was gone on with elsewhere; the maker says which of the two counts. */
	elsewhere = $state.raw<UnderWay | null>(null);
	/** What this browser had kept of the sheet and cannot read, or cannot keep. */
	lost = $state('');
	/** Whether what is shown was typed before and not kept. */
	resumed = $state(false);
	busy = $state(false);
	/** The measure that is pointed at, on the sheet or on the figure. */
	pointed = $state<string | null>(null);

	private readonly name: string;
	/** The version of the sheet under way, as the server counts it, that this page goes on from. */
	private version = 0;
	private pause: ReturnType<typeof setTimeout> | undefined;
	private left = false;
	private reviewed: Promise<void> = Promise.resolve();
	private arrived: () => void = () => {};
	private pending = false;
	/** The number of the newest judgement asked for: an older one that comes in meanwhile settles nothing. */
	private wanted = 0;
	/** The judgement on which advice is asked for; 0 where none is. */
	private toAdvise = 0;
	private readonly reviews: Latest<number, Review>;
	private readonly saves: Latest<Kept, UnderWay>;

	constructor(
		private readonly wearer: string,
		private readonly from: Sheet | null,
		private readonly job: string | null,
		underWay: UnderWay | null,
		/** The blocks that are to be drafted from it. */
		readonly blocks: readonly string[] = ['bodice'],
	) {
		this.name = `izett-sheet-${wearer}`;
		this.reviews = new Latest<number, Review>(
			async () =>
				(await answered(
					api.POST('/api/measures/review', {
						body: {
							readings: $state.snapshot(this.readings),
							taken_by: this.takenBy,
							against: this.from?.id ?? null,
							blocks: [...this.blocks],
						},
					}),
				)) as Review,
			(result, wish) => {
				this.review = result;
				if (this.problem?.offline) this.problem = null;
				this.settle(wish);
			},
			(error, wish) => {
				this.problem = asProblem(error);
				this.settle(wish);
			},
		);
		this.saves = new Latest<Kept, UnderWay>(
			async (kept) =>
				(await answered(
					api.PUT('/api/wearers/{wearer_id}/under-way', {
						params: { path: { wearer_id: this.wearer } },
						body: { ...kept, version: this.version },
					}),
				)) as UnderWay,
			(saved) => (this.version = saved.version ?? 0),
			// It is in this browser all the same; the next change sends it again.
			(error) => (this.elsewhere = asProblem(error).more.under_way ?? this.elsewhere),
		);
		this.start(underWay);
	}

	private start(underWay: UnderWay | null): void {
		this.version = underWay?.version ?? 0;
		const here = this.here();
		const there = underWay ? { ...underWay, at: Date.parse(underWay.saved) } : null;
		const kept = here && (!there || here.at >= there.at - 1000) ? here : there;
		if (kept) {
			this.fill(kept);
			this.prepared = kept.prepared ?? [];
			this.place = kept.place ?? '';
			this.resumed = true;
		} else if (this.from) {
			this.fill({ ...asTyped(this.from), taken_on: today() });
		}
		this.judge();
	}

	/** Return what this browser kept of the sheet. */
	private here(): Kept | null {
		const text = store.read(this.name);
		if (text === null) return null;
		const kept = asKept(text);
		if (!kept) {
			this.lost = 'What this browser had kept of the sheet is damaged and cannot be read.';
			store.drop(this.name);
		}
		return kept;
	}

	/** Take over what stands on this sheet elsewhere. */
	takeOver(): void {
		const there = this.elsewhere;
		if (!there) return;
		this.elsewhere = null;
		this.version = there.version ?? 0;
		this.fill(there);
		this.prepared = there.prepared ?? [];
		this.place = there.place ?? '';
		this.changed();
	}

	/** Go on with what is typed here, in place of what stands elsewhere. */
	goOnHere(): void {
		this.version = this.elsewhere?.version ?? 0;
		this.elsewhere = null;
		this.changed();
	}

	/** Put a sheet's readings in place of what is typed. */
	private fill(sheet: SheetIn): void {
		this.readings = { ...sheet.readings };
		this.takenOn = sheet.taken_on;
		this.takenBy = sheet.taken_by ?? 'helper';
		this.worn = sheet.worn ?? '';
	}

	/** Bring the readings of a file onto the sheet; those that the file has not stay. */
	bring(sheet: SheetIn): void {
		this.readings = { ...this.readings, ...sheet.readings };
		this.takenOn = sheet.taken_on;
		this.takenBy = sheet.taken_by ?? 'helper';
		if (sheet.worn) this.worn = sheet.worn;
		this.changed();
	}

	text(key: string, again = 0): string {
		const taken = this.readings[key];
		return (again === 0 ? taken?.text : taken?.again?.[again - 1]?.text) ?? '';
	}

	/** The unit in which a reading was typed; of one that is not typed yet, the unit that is typed in now. */
	unit(key: string, again = 0): Unit {
		const taken = this.readings[key];
		const typed = again === 0 ? taken : taken?.again?.[again - 1];
		return typed?.text.trim() ? typed.unit : reading.unit;
	}

	/** Type a reading: the first, or one read again. */
	type(key: string, text: string, again = 0): void {
		// What is typed over a chart's size is somebody's own measure.
		if (this.takenBy === 'chart') this.takenBy = 'helper';
		const before = this.readings[key] ?? { text: '', unit: reading.unit, again: [] };
		const typed: LengthIn = { text, unit: reading.unit };
		const more = [...(before.again ?? [])];
		if (again > 0) more[again - 1] = typed;
		this.readings[key] =
			again > 0 ? { ...before, again: more.filter((r) => r) } : { ...typed, again: before.again ?? [] };
		this.changed();
	}

	/** Take left and right apart, each beginning as the whole; or together again, as the left one. */
	setSides(symbol: string, apart: boolean): void {
		const whole = this.readings[symbol] ?? this.readings[`${symbol}.left`];
		const kept = { ...this.readings };
		for (const key of [symbol, `${symbol}.left`, `${symbol}.right`]) delete kept[key];
		const start = whole ?? { text: '', unit: reading.unit, again: [] };
		if (apart) {
			kept[`${symbol}.left`] = { ...start };
			kept[`${symbol}.right`] = { ...start };
		} else if (whole) kept[symbol] = { ...start };
		this.readings = kept;
		this.changed();
	}

	hasSides(symbol: string): boolean {
		return `${symbol}.left` in this.readings || `${symbol}.right` in this.readings;
	}

	isTaken(symbol: string): boolean {
		return [symbol, `${symbol}.left`, `${symbol}.right`].some((key) => this.readings[key]?.text.trim());
	}

	/** Write down what is there, and ask what the core thinks of it. */
	changed(): void {
		const kept: Kept = {
			readings: $state.snapshot(this.readings),
			taken_on: this.takenOn,
			taken_by: this.takenBy,
			worn: this.worn,
			prepared: [...this.prepared],
			place: this.place,
			at: Date.now(),
		};
		if (!store.write(this.name, JSON.stringify(kept))) {
			this.lost = 'This browser cannot keep the sheet: it is kept by the workroom’s server alone.';
		}
		this.saves.wish(kept);
		this.judge();
	}

	private judge(): void {
		if (this.left) return;
		// Who waits already goes on waiting for the newest judgement: a promise left behind would never settle.
		if (!this.pending) this.reviewed = new Promise((done) => (this.arrived = done));
		this.pending = true;
		this.wanted += 1;
		this.reviews.wish(this.wanted);
		this.rest();
		const wish = (this.toAdvise = this.wanted);
		this.pause = setTimeout(() => void this.adviseOn(wish), PAUSE);
	}

	/** Ask what to take next once the core has judged what is typed: that says whether it can be drafted at all. */
	private async adviseOn(wish: number): Promise<void> {
		await this.judged();
		if (wish === this.toAdvise) await this.advise();
	}

	private settle(wish: number): void {
		if (wish !== this.wanted) return;
		this.pending = false;
		this.arrived();
	}

	/** Wait until the core has judged what is typed now. */
	async judged(): Promise<void> {
		await this.reviewed;
	}

	/** Ask for nothing until something is typed again. */
	rest(): void {
		clearTimeout(this.pause);
		this.toAdvise = 0;
	}

	/** Ask for nothing more: the stage is left. */
	leave(): void {
		this.rest();
		this.advising.leave();
		this.left = true;
	}

	/** Ask what to take next; it takes a while, and the server keeps what it comes to. */
	async advise(): Promise<void> {
		if (!this.review?.can_draft) {
			this.advice = null;
			return;
		}
		const advice = await this.advising.begin<Advice>(
			api.POST('/api/measures/advice', {
				body: {
					uid: freshName('w'),
					wearer: this.wearer,
					readings: $state.snapshot(this.readings),
					job: this.job,
				},
			}),
		);
		const { problem, stopped } = this.advising;
		if (problem?.offline) this.problem = problem;
		// An unreadable entry is told where it stands; advice waits until it is fixed.
		if (advice || problem) this.advice = advice;
		else if (stopped) this.advice = null;
	}

	async startAfresh(): Promise<void> {
		store.drop(this.name);
		await answered(
			api.DELETE('/api/wearers/{wearer_id}/under-way', { params: { path: { wearer_id: this.wearer } } }),
		).catch((error: unknown) => (this.problem = asProblem(error)));
		this.resumed = false;
		this.readings = {};
		this.worn = '';
		this.prepared = [];
		this.place = '';
		this.start(null);
	}

	/** Keep the sheet; return it, or null where that failed and the problem says why. */
	async keep(): Promise<Sheet | null> {
		this.busy = true;
		try {
			const sheet = await answered(
				api.POST('/api/wearers/{wearer_id}/sheets', {
					params: { path: { wearer_id: this.wearer } },
					body: {
						taken_on: this.takenOn,
						taken_by: this.takenBy,
						worn: this.worn,
						readings: $state.snapshot(this.readings),
					},
				}),
			);
			store.drop(this.name);
			this.version = 0;
			this.resumed = false;
			this.problem = null;
			return sheet;
		} catch (error) {
			this.problem = asProblem(error);
			return null;
		} finally {
			this.busy = false;
		}
	}
}

/** Return what a browser kept of a sheet, or null where that is damaged. */
function asKept(text: string): Kept | null {
	try {
		const found = JSON.parse(text) as Partial<Kept> | null;
		const whole = typeof found?.readings === 'object' && found.readings && typeof found.at === 'number';
		return whole && typeof found.taken_on === 'string' ? (found as Kept) : null;
	} catch {
		return null;
	}
}

/** Return a kept sheet as it was typed. */
export function asTyped(sheet: Sheet): SheetIn {
	return {
		taken_on: sheet.taken_on,
		taken_by: sheet.taken_by as Taker,
		worn: sheet.worn,
		readings: Object.fromEntries(
			sheet.readings.map((r) => [r.symbol, { text: r.text, unit: r.unit, again: r.again ?? [] }]),
		),
	};
}
