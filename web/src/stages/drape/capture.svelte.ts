/** A picture on its way to a panel: chosen, clicked on, traced on the server, looked at, and taken or left. */
import {
	answered,
	api,
	asProblem,
	type Problem,
	type Traced,
	type TraceBy,
	asForm,
} from '../../lib/api/client';
import { LongWork } from '../../lib/api/longWork.svelte';
import type { Desk } from '../../lib/desk/desk.svelte';
import { type Pixel, TakenPlaces, type TakenKind } from './taken.svelte';

/** How many places each way of telling a scale asks to be clicked, before the piece is tapped. */
export const CLICKS: Record<TraceBy, number> = { sheets: 0, points: 2, rectangle: 4, grid: 1 };

/** Milliseconds after which a hand is at rest. */
const RESTS = 350;

export class Capture {
	/** The picture as it is shown: a local name of the file. */
	shown = $state('');
	width = $state(0);
	height = $state(0);
	/** The picture's name on the server, where it was sent. */
	private sent = '';
	by = $state<TraceBy>('sheets');
	paper = $state<'a4' | 'letter'>('a4');
	/** cm. */
	bar = $state(20);
	/** How thick the piece is, cm. */
	thick = $state(0);
	lengths = $state<(number | null)[]>([null, null]);
	spots = $state<Pixel[]>([]);
	tap = $state<Pixel | null>(null);
	of = $state<'outline' | 'marks'>('outline');
	title = $state('');
	upright = $state<number | null>(null);
	problem = $state.raw<Problem | null>(null);
	sending = $state(false);
	readonly work = new LongWork();
	found = $state.raw<Traced | null>(null);
	/** What a click does once the picture is traced. */
	tool = $state<TakenKind | 'tape'>('corner');
	/** Two places on a tape that lies in the picture, and what it reads between them, cm. */
	tape = $state<Pixel[]>([]);
	tapeReads = $state(50);
	readonly taken = new TakenPlaces(() => this.soon());
	private later: ReturnType<typeof setTimeout> | undefined;

	constructor(private readonly desk: Desk) {}

	/** What is to be clicked next, in words; empty where nothing is. */
	get asked(): string {
		if (!this.shown) return '';
		const left = CLICKS[this.by] - this.spots.length;
		if (left > 0) {
			if (this.by === 'grid') return 'Click a place within the grid.';
			if (this.by === 'points')
				return this.spots.length ? 'Click its other end.' : 'Click one end of the known length.';
			const corner = ['top left', 'top right', 'lower right', 'lower left'][this.spots.length];
			return `Click the ${corner} corner of the rectangle.`;
		}
		if (!this.tap) return 'Tap the piece, anywhere on it.';
		if (!this.found || this.tool !== 'tape' || this.tape.length === 2) return '';
		return this.tape.length ? 'Click the other end on the tape.' : 'Click one end on the tape.';
	}

	/** Whether all is there that tracing needs. */
	get ready(): boolean {
		const asked = { sheets: 0, points: 1, rectangle: 2, grid: 1 }[this.by];
		return (
			!!this.shown &&
			!this.asked &&
			!!this.title.trim() &&
			this.lengths.slice(0, asked).every((one) => one !== null)
		);
	}

	async choose(file: File): Promise<void> {
		const { job } = this.desk;
		if (!job) return;
		this.begin();
		this.sending = true;
		try {
			const picture = await answered(
				api.POST('/api/jobs/{job_id}/pictures', {
					params: { path: { job_id: job.id } },
					body: { file: '' },
					bodySerializer: () => asForm(file),
				}),
			);
			this.sent = picture.uid;
			this.width = picture.width;
			this.height = picture.height;
			this.shown = URL.createObjectURL(file);
		} catch (error) {
			this.problem = asProblem(error);
		} finally {
			this.sending = false;
		}
	}

	/** Let go of a picture. */
	begin(): void {
		if (this.shown) URL.revokeObjectURL(this.shown);
		this.shown = this.sent = '';
		this.again();
	}

	/** Click anew, in the same picture. */
	again(): void {
		this.spots = [];
		this.tap = null;
		this.found = null;
		this.problem = null;
		this.upright = null;
		this.tape = [];
		this.tool = 'corner';
		this.atOnce();
	}

	click(at: Pixel): void {
		if (this.found) {
			if (this.tool !== 'tape') this.taken.take(this.tool, at);
			else {
				this.tape = this.tape.length === 2 ? [at] : [...this.tape, at];
				if (this.tape.length === 2) void this.trace();
			}
			return;
		}
		if (this.work.underWay) return;
		if (this.spots.length < CLICKS[this.by]) this.spots = [...this.spots, at];
		else this.tap = at;
	}

	/** Trace once the hand rests: a key that is held down moves a place many times. */
	private soon(): void {
		this.atOnce();
		this.later = setTimeout(() => void this.trace(), RESTS);
	}

	private atOnce(): void {
		clearTimeout(this.later);
		this.later = undefined;
	}

	async trace(): Promise<void> {
		const { job } = this.desk;
		if (!job || !this.tap) return;
		this.atOnce();
		this.problem = null;
		const count = { sheets: 0, points: 1, rectangle: 2, grid: 1 }[this.by];
		const call = api.POST('/api/jobs/{job_id}/trace', {
			params: { path: { job_id: job.id } },
			body: {
				uid: crypto.randomUUID(),
				picture: this.sent,
				title: this.title.trim(),
				by: this.by,
				paper: this.paper,
				bar: this.bar,
				spots: this.spots,
				lengths: this.lengths.slice(0, count) as number[],
				tap: this.tap,
				of: this.of,
				upright: this.upright,
				thick: this.by === 'sheets' ? this.thick : 0,
				taken: this.found ? this.taken.all : null,
				tape: this.tape.length === 2 ? { ends: this.tape, known: this.tapeReads } : null,
			},
		});
		const result = await this.work.begin<Traced>(call);
		this.problem = this.work.problem;
		if (!result) return;
		if (!this.found) this.taken.begin(result.taken);
		// What was changed meanwhile is on its way: it is not put back to how it stood.
		else if (this.later === undefined) this.taken.stands(result.taken);
		this.found = result;
	}
}
