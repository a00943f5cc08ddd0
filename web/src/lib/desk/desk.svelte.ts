/**
 * A job on the desk: its state as kept, the recipe as it is being tried, and what came of it.
 *
 * Every change goes through `deed`, which names the version that it was made on. A deed that fails keeps its closure,
 * so that it can be done again on the newer state, or when the server answers again: nothing entered is lost.
 */
import {
	answered,
	api,
	asProblem,
	type Job,
	type Piece,
	type Preview,
	Problem,
	type Recipe,
} from '../api/client';
import { Latest } from '../api/latest';
import { names } from './names.svelte';

export type Deed = (job: Job, version: Record<'If-Match', string>) => Promise<Job>;

interface Wish {
	job: Job;
	recipe: Recipe;
	beside: Recipe | null;
	against: number | null;
	cut: boolean;
	source: boolean;
}

export class Desk {
	// Answers are replaced whole, never changed in place: raw state spares wrapping thousands of points.
	job = $state.raw<Job | null>(null);
	recipe = $state.raw<Recipe | null>(null);
	preview = $state.raw<Preview | null>(null);
	pieces = $state.raw<Piece[]>([]);
	problem = $state.raw<Problem | null>(null);
	draftProblem = $state.raw<Problem | null>(null);
	busy = $state(false);
	saved = $state(true);
	/** The muslin that lines are compared with, and whether cutting lines are wanted: what a stage sets. */
	against = $state<number | null>(null);
	cut = $state(false);
	/** Whether the source pieces are shown, under the style. */
	source = $state(false);
	/** Another recipe on the same sheet, laid under this one to be compared. */
	beside = $state.raw<Recipe | null>(null);
	/** Milliseconds from a wish to its result, for the person who wonders. */
	took = $state(0);

	private wished = '';
	private failedDeed: { deed: Deed; words: string } | null = null;
	private readonly known: Record<string, Piece> = {};
	private readonly previews: Latest<Wish, { answer: Preview; began: number }>;

	constructor() {
		this.previews = new Latest(
			async (wish) => {
				const began = performance.now();
				const answer = (await answered(
					api.POST('/api/preview', {
						body: {
							sheet: wish.job.sheet.id,
							recipe: wish.recipe,
							beside: wish.beside,
							known: Object.keys(this.known),
							job: wish.job.id,
							against: wish.against,
							cut: wish.cut,
							source: wish.source,
						},
					}),
				)) as Preview;
				return { answer, began };
			},
			({ answer, began }) => this.show(answer, began),
			(error) => {
				const problem = asProblem(error);
				this.wished = '';
				if (problem.offline) this.problem = problem;
				else this.draftProblem = problem;
			},
		);
	}

	/** Load a job. */
	async open(id: string): Promise<void> {
		try {
			this.take(await answered(api.GET('/api/jobs/{job_id}', { params: { path: { job_id: id } } })));
			this.problem = null;
		} catch (error) {
			this.problem = asProblem(error);
		}
	}

	/** Take a job's state as the present one, and work its recipe out unless that is what is shown already. */
	take(job: Job): void {
		this.job = job;
		this.recipe = job.recipe;
		this.saved = true;
		if (this.wished !== this.wishNow()) this.work();
	}

	/** Try a recipe without keeping it. */
	try(recipe: Recipe): void {
		this.recipe = recipe;
		this.saved = false;
		this.work();
	}

	/** Begin a stage: what it compares with and whether it cuts, on the recipe as kept. */
	begin(stage: { against?: number | null; cut?: boolean; source?: boolean }): void {
		this.against = stage.against ?? null;
		this.cut = stage.cut ?? false;
		this.source = stage.source ?? false;
		this.beside = null;
		this.leave();
	}

	/** Show the source pieces under the style, or the garment again. */
	showSource(source: boolean): void {
		this.source = source;
		this.work();
	}

	/** Lay another recipe under the present one; null takes it away again. */
	layUnder(recipe: Recipe | null): void {
		this.beside = recipe;
		this.work();
	}

	/** Go back to the recipe as kept. */
	leave(): void {
		if (this.job) this.take(this.job);
	}

	/** Work the present recipe out; compared with a muslin as cut where `against` names one. */
	work(): void {
		if (this.job && this.recipe) {
			this.wished = this.wishNow();
			this.previews.wish({
				job: this.job,
				recipe: $state.snapshot(this.recipe),
				beside: this.beside,
				against: this.against,
				cut: this.cut,
				source: this.source,
			});
		}
	}

	/**
	 * Keep a change of the recipe as the job's new state. The change is a function, so that done again on a newer
	 * state it takes nothing of that state back.
	 */
	async keep(change: (recipe: Recipe) => Recipe, why: string): Promise<boolean> {
		return this.deed(why, (job, version) =>
			answered(
				api.PUT('/api/jobs/{job_id}/recipe', {
					params: { path: { job_id: job.id }, header: version },
					body: { recipe: change(job.recipe), why },
				}),
			),
		);
	}

	/** Do a deed on the job as it is; return whether it was kept. */
	async deed(words: string, deed: Deed): Promise<boolean> {
		if (!this.job || this.busy) return false;
		this.busy = true;
		try {
			this.take(await deed(this.job, { 'If-Match': `"${this.job.version}"` }));
			this.problem = null;
			this.failedDeed = null;
			return true;
		} catch (error) {
			this.problem = asProblem(error);
			this.failedDeed = { deed, words };
			return false;
		} finally {
			this.busy = false;
		}
	}

	/** What the failed deed was, in words; empty where there is none. */
	get unfinished(): string {
		return this.problem ? (this.failedDeed?.words ?? '') : '';
	}

	/** Do the failed deed again, on the newest state. */
	async again(): Promise<void> {
		const failed = this.failedDeed;
		const newer = this.problem?.job;
		if (newer) this.take(newer);
		else if (this.job) await this.open(this.job.id);
		if (failed && !this.problem?.offline) await this.deed(failed.words, failed.deed);
	}

	/** Let the failed deed go, and look at the newest state. */
	async letGo(): Promise<void> {
		const id = this.job?.id;
		this.failedDeed = null;
		this.problem = null;
		if (id) await this.open(id);
	}

	/** Undo or redo. */
	async step(way: 'undo' | 'redo'): Promise<void> {
		const possible = way === 'undo' ? this.job?.can_undo : this.job?.can_redo;
		if (!possible) return;
		await this.deed(way, (job, version) =>
			answered(
				api.POST('/api/jobs/{job_id}/head', {
					params: { path: { job_id: job.id }, header: version },
					body: { way },
				}),
			),
		);
	}

	/** All that a preview depends on, as one text. */
	private wishNow(): string {
		const { job, recipe, beside, against, cut, source } = this;
		return JSON.stringify([job?.id, job?.sheet.id, recipe, beside, against, cut, source]);
	}

	private show(answer: Preview, began: number): void {
		for (const piece of answer.pieces) this.known[piece.key] = piece;
		this.pieces = answer.order.map((key) => this.known[key]!);
		for (const key of Object.keys(this.known)) {
			// Keep some more than are shown: undo then needs no piece twice.
			if (Object.keys(this.known).length > 24 && !answer.order.includes(key)) delete this.known[key];
		}
		names.titles = answer.titles;
		this.preview = answer;
		this.draftProblem = null;
		if (this.problem?.offline && !this.failedDeed) this.problem = null;
		this.took = performance.now() - began;
	}
}
