/** The plotter's queue: watched while a pen is at work, fed, stopped. All jobs share it. */
import {
	answered,
	api,
	asForm,
	asProblem,
	type Answer,
	type Plot,
	type PlotterQueue,
	type Problem,
} from '../../lib/api/client';
import type { Desk } from '../../lib/desk/desk.svelte';

/** Milliseconds between two looks while something is being plotted. */
const LOOK_EVERY = 700;

export class Plotter {
	state = $state.raw<PlotterQueue | null>(null);
	problem = $state.raw<Problem | null>(null);
	busy = $state(false);
	/** Whose picture lies on the table. */
	private chosen = $state<string | null>(null);
	private timer: ReturnType<typeof setTimeout> | undefined;

	constructor(private readonly desk: Desk) {}

	get queue(): Plot[] {
		return this.state?.queue ?? [];
	}

	/** The plot that lies on the table: the chosen one, or what the pen is at, or the last. */
	get shown(): Plot | null {
		const { queue } = this;
		return (
			queue.find((one) => one.id === this.chosen) ??
			queue.find((one) => one.state === 'plotting') ??
			queue.at(-1) ??
			null
		);
	}

	get underWay(): boolean {
		return this.queue.some((one) => one.state === 'plotting' || one.state === 'waiting');
	}

	choose(plot: Plot): void {
		this.chosen = plot.id;
	}

	/** Look at the queue now, and again while the pen is at work. */
	async watch(): Promise<void> {
		clearTimeout(this.timer);
		await this.take(api.GET('/api/plotter'));
	}

	leave(): void {
		clearTimeout(this.timer);
	}

	async sendPattern(): Promise<void> {
		const id = this.desk.job?.id;
		if (id) await this.deed(api.POST('/api/jobs/{job_id}/plots', { params: { path: { job_id: id } } }));
	}

	async sendFile(file: File): Promise<void> {
		await this.deed(
			api.POST('/api/plotter/plots', {
				body: { file: '' },
				bodySerializer: () => asForm(file),
			}),
		);
	}

	async stop(plot: Plot): Promise<void> {
		await this.deed(
			api.POST('/api/plotter/plots/{plot_id}/stop', { params: { path: { plot_id: plot.id } } }),
		);
	}

	async takeOff(plot: Plot): Promise<void> {
		await this.deed(api.DELETE('/api/plotter/plots/{plot_id}', { params: { path: { plot_id: plot.id } } }));
	}

	private async deed(call: Promise<Answer<PlotterQueue>>): Promise<void> {
		clearTimeout(this.timer);
		this.busy = true;
		this.chosen = null;
		await this.take(call);
		this.busy = false;
	}

	private async take(call: Promise<Answer<PlotterQueue>>): Promise<void> {
		try {
			this.state = await answered(call);
			this.problem = null;
		} catch (error) {
			this.problem = asProblem(error);
		}
		clearTimeout(this.timer);
		if (this.underWay) this.timer = setTimeout(() => void this.watch(), LOOK_EVERY);
	}
}
