/** A picture on its way to a panel: chosen, clicked on, traced on the server, looked at, and taken or left. */
import { answered, api, asProblem, type Problem, type Traced, type TraceBy } from '../../lib/api/client';
import { LongWork } from '../../lib/api/longWork.svelte';
import type { Desk } from '../../lib/desk/desk.svelte';

/** A place in a picture, pixels. */
export type Pixel = [number, number];

/** How many places each way of telling a scale asks to be clicked, before the piece is tapped. */
export const CLICKS: Record<TraceBy, number> = { sheets: 0, points: 2, rectangle: 4, grid: 1 };

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
		return this.tap ? '' : 'Tap the piece, anywhere on it.';
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
					// The description of the API has a file as text.
					body: { file: file as unknown as string },
					bodySerializer: (body) => {
						const form = new FormData();
						form.append('file', body.file as unknown as Blob);
						return form;
					},
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
	}

	click(at: Pixel): void {
		if (this.found || this.work.underWay) return;
		if (this.spots.length < CLICKS[this.by]) this.spots = [...this.spots, at];
		else this.tap = at;
	}

	async trace(): Promise<void> {
		const { job } = this.desk;
		if (!job || !this.tap) return;
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
			},
		});
		const result = await this.work.begin<Traced>(call);
		this.problem = this.work.problem;
		if (result) this.found = result;
	}
}
