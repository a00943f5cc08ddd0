/**
 * Deeds: what changes a job for good. Each is done on the version of the job that the page shows, which nobody else has to
 * know of. One that fails is kept, with those that wait for it, so that they can be done again on the newer state, or when
 * the server answers again: nothing entered is lost.
 */
import {
	answered,
	api,
	type About,
	type Traced,
	asProblem,
	type Answer,
	type ClothUse,
	type CutTableIn,
	type Finding,
	type FittingIn,
	type Half,
	type Job,
	type LayPlan,
	type LengthIn,
	type OnForm,
	type Outcome,
	type Problem,
	type Recipe,
	type Sheet,
	type Worked,
	asForm,
} from '../api/client';

/** What is said of a finding when it is recorded. */
export interface Found {
	uid: string;
	kind: string;
	side: Half;
	movement: string;
	words: string;
	given: Record<string, LengthIn>;
	taken: 'whole' | 'pinch';
	counted: 'around' | 'each_side' | 'here' | null;
	piece: string;
	line: string;
}

/** What a deed on a job is sent with: which job, on which version of it. */
interface On {
	path: { job_id: string };
	header: Record<'If-Match', string>;
}

type Deed = (job: Job, on: On) => Promise<Answer<Job>>;
type Change = (recipe: Recipe) => Recipe;

/** A deed that is asked for: what it is in words, how it changes the recipe, and whether it is done. */
interface ToDo {
	words: string;
	deed: Deed;
	change?: Change;
	done: boolean;
}

export class Deeds {
	/** The job as it is kept. */
	job = $state.raw<Job | null>(null);
	problem = $state.raw<Problem | null>(null);
	busy = $state(false);
	/** What is not done yet: the first of it is under way, or could not be done for now. */
	private todo = $state.raw<ToDo[]>([]);
	private underWay: Promise<void> = Promise.resolve();

	/** `taken` is told of each state of the job, `tried` of a recipe that could not be kept for now. */
	constructor(
		private readonly taken: (job: Job) => void,
		private readonly tried: (recipe: Recipe) => void = () => {},
	) {}

	/** Load a job. */
	async open(id: string): Promise<void> {
		if (id !== this.job?.id) this.todo = [];
		try {
			this.take(await answered(api.GET('/api/jobs/{job_id}', { params: { path: { job_id: id } } })));
			this.problem = null;
		} catch (error) {
			this.problem = asProblem(error);
		}
	}

	/**
	 * Keep a change of the recipe. It is a function, so that done again on a newer state it takes nothing of that back;
	 * where it `fixes` what a check found, only as long as that is still found.
	 */
	async keep(change: Change, why: string, fixes?: About): Promise<boolean> {
		const kept = await this.do(
			why,
			(job, on) =>
				api.PUT('/api/jobs/{job_id}/recipe', {
					params: on,
					body: { recipe: change(job.recipe), why, fixes },
				}),
			{ waits: true, change },
		);
		// It is done again once what stands in the way is gone: until then it lies on the table.
		if (!kept && this.problem?.passing && this.job) {
			this.tried(this.todo.reduce((recipe, asked) => asked.change?.(recipe) ?? recipe, this.job.recipe));
		}
		return kept;
	}

	/** Draft the job from another sheet of its wearer, all its steps kept. */
	draftFrom(sheet: Sheet): Promise<boolean> {
		const why = `drafted from sheet ${sheet.number}`;
		return this.do(why, (job, on) =>
			api.PUT('/api/jobs/{job_id}/recipe', {
				params: on,
				body: { recipe: job.recipe, sheet: sheet.id, why },
			}),
		);
	}

	/** Go a step back or forth in what was kept. */
	async move(way: 'undo' | 'redo'): Promise<void> {
		if (!(way === 'undo' ? this.job?.can_undo : this.job?.can_redo)) return;
		await this.do(way, (_, on) => api.POST('/api/jobs/{job_id}/head', { params: on, body: { way } }));
	}

	cutMuslin(number: number, about: { cloth: string; worn: string }): Promise<boolean> {
		return this.do(`cut muslin ${number}`, (_, on) =>
			api.POST('/api/jobs/{job_id}/rounds', { params: on, body: about }),
		);
	}

	closeMuslin(number: number, note: string, pinLost = false): Promise<boolean> {
		return this.do(`close muslin ${number}`, (_, { path, header }) =>
			api.POST('/api/jobs/{job_id}/rounds/{number}/close', {
				params: { path: { ...path, number }, header },
				body: { note, pin_lost: pinLost },
			}),
		);
	}

	/** Keep what of an open muslin is prepared, watched and counted. */
	seeTo(number: number, about: FittingIn, words: string): Promise<boolean> {
		return this.do(words, (_, { path, header }) =>
			api.PATCH('/api/jobs/{job_id}/rounds/{number}', {
				params: { path: { ...path, number }, header },
				body: about,
			}),
		);
	}

	/** Keep a draping session as it is prepared. */
	prepareDrape(form: OnForm, words: string): Promise<boolean> {
		return this.do(words, (_, on) => api.PUT('/api/jobs/{job_id}/on-form', { params: on, body: form }));
	}

	/** Keep what lies on the cutting table: cloths, sums, how many garments. */
	layOut(table: CutTableIn, words: string): Promise<boolean> {
		return this.do(words, (_, on) => api.PUT('/api/jobs/{job_id}/cut-table', { params: on, body: table }), {
			waits: true,
		});
	}

	/** Keep a lay plan of a cloth. */
	keepPlan(use: ClothUse, plan: LayPlan, byHand: boolean): Promise<boolean> {
		return this.do('keep the lay plan', (_, { path, header }) =>
			api.PUT('/api/jobs/{job_id}/lay-plans/{use}', {
				params: { path: { ...path, use }, header },
				body: { plan, by_hand: byHand },
			}),
		);
	}

	/** Keep the picture that a panel was traced from under that panel. */
	layPicture(found: Traced): Promise<boolean> {
		const body = { picture: found.picture, lies: found.lies };
		return this.do('keep the picture', (_, on) =>
			api.POST('/api/jobs/{job_id}/under-panels', { params: on, body }),
		);
	}

	/** Put a photo beside a finding. Its name is made here: sent twice it is kept once. */
	photograph(number: number, finding: string, photo: Blob): Promise<boolean> {
		const name = crypto.randomUUID();
		return this.do('keep the photo', (_, { path, header }) =>
			api.POST('/api/jobs/{job_id}/rounds/{number}/findings/{uid}/photos/{photo}', {
				params: { path: { ...path, number, uid: finding, photo: name }, header },
				body: { file: '' },
				bodySerializer: () => asForm(photo),
			}),
		);
	}

	/** Delete a photo, for good. */
	removePhoto(number: number, finding: string, photo: string): Promise<boolean> {
		return this.do('delete the photo', (_, { path, header }) =>
			api.DELETE('/api/jobs/{job_id}/rounds/{number}/findings/{uid}/photos/{photo}', {
				params: { path: { ...path, number, uid: finding, photo }, header },
			}),
		);
	}

	/** Note minutes that were spent. */
	spend(minutes: number): Promise<boolean> {
		return this.do('note the time', (_, on) =>
			api.POST('/api/jobs/{job_id}/time', { params: on, body: { minutes } }),
		);
	}

	/** Start or stop the clock; `minutes` count instead of its own where it was forgotten. */
	clock(runs: boolean, minutes: number | null = null): Promise<boolean> {
		return this.do(runs ? 'start the clock' : 'stop the clock', (_, on) =>
			api.POST('/api/jobs/{job_id}/clock', { params: on, body: { runs, minutes } }),
		);
	}

	/** Leave a note that comes back on the bench, tomorrow or on a day; no words take it away. */
	lookAgain(words: string, on: string | null = null): Promise<boolean> {
		return this.do(words ? 'leave the note' : 'take the note away', (_, sent) =>
			api.POST('/api/jobs/{job_id}/look-again', { params: sent, body: { words, on } }),
		);
	}

	/** Put steps of the wearer's fit under the style. */
	takeFit(uids: string[]): Promise<boolean> {
		return this.do('take the wearer’s fit over', (_, on) =>
			api.POST('/api/jobs/{job_id}/wearer-fit', { params: on, body: { uids } }),
		);
	}

	/** Keep what a solved finding changed as the wearer's fit. */
	keepFit(number: number, finding: Finding): Promise<boolean> {
		return this.do(`keep with the wearer: ${finding.seen}`, (_, { path, header }) =>
			api.POST('/api/jobs/{job_id}/rounds/{number}/findings/{uid}/keep', {
				params: { path: { ...path, number, uid: finding.uid }, header },
			}),
		);
	}

	/** Record what a muslin shows. */
	record(number: number, finding: Found, seen: string): Promise<boolean> {
		return this.do(`record: ${seen}`, (_, { path, header }) =>
			api.POST('/api/jobs/{job_id}/rounds/{number}/findings', {
				params: { path: { ...path, number }, header },
				body: finding,
			}),
		);
	}

	/** Set right what was recorded. */
	edit(number: number, finding: Found, seen: string): Promise<boolean> {
		return this.do(`set right: ${seen}`, (_, { path, header }) =>
			api.PUT('/api/jobs/{job_id}/rounds/{number}/findings/{uid}', {
				params: { path: { ...path, number, uid: finding.uid }, header },
				body: finding,
			}),
		);
	}

	/** Withdraw a finding, with what its remedy changed. */
	withdraw(number: number, finding: Finding): Promise<boolean> {
		return this.do(`withdraw: ${finding.seen}`, (_, { path, header }) =>
			api.DELETE('/api/jobs/{job_id}/rounds/{number}/findings/{uid}', {
				params: { path: { ...path, number, uid: finding.uid }, header },
			}),
		);
	}

	/** Say that a finding is normal for this cut, and why. */
	normal(number: number, uid: string, why: string): Promise<boolean> {
		return this.do('normal for this cut', (_, { path, header }) =>
			api.POST('/api/jobs/{job_id}/rounds/{number}/findings/{uid}/normal', {
				params: { path: { ...path, number, uid }, header },
				body: { why },
			}),
		);
	}

	/** Change the paper by a remedy of a finding that was recorded. */
	apply(number: number, finding: string, plan: Worked): Promise<boolean> {
		// Kept under the names under which they were tried: a repeated deed makes no second step, and what the table
		// still shows of the trial is what is kept.
		const uids = plan.steps.map((step) => step.uid);
		return this.do(`apply: ${plan.title}`, (_, { path, header }) =>
			api.POST('/api/jobs/{job_id}/rounds/{number}/findings/{uid}/remedy', {
				params: { path: { ...path, number, uid: finding }, header },
				body: { remedy: plan.key, uids },
			}),
		);
	}

	/** Say whether the remedy of an earlier finding helped. */
	answer(number: number, finding: Finding, outcome: Outcome, words: string): Promise<boolean> {
		return this.do(`${finding.seen}: ${words}`, (_, { path, header }) =>
			api.POST('/api/jobs/{job_id}/rounds/{number}/answers', {
				params: { path: { ...path, number }, header },
				body: { finding: finding.uid, outcome, note: '' },
			}),
		);
	}

	/** What could not be done, in words; empty where there is nothing. */
	get unfinished(): string {
		return this.problem ? this.todo.map(({ words }) => words).join('; ') : '';
	}

	/** Do again what could not be done, on the newest state. */
	async again(): Promise<void> {
		if (this.busy) return;
		const newer = this.problem?.job;
		// Where the job stands as it stood, what is tried stays on the table until it is kept.
		if (newer) this.take(newer);
		if (this.todo.length) await (this.underWay = this.work());
		else if (this.job) await this.open(this.job.id);
	}

	/** Let go of what could not be done, and look at the newest state. */
	async letGo(): Promise<void> {
		this.todo = [];
		this.problem = null;
		if (this.job) await this.open(this.job.id);
	}

	private take(job: Job): void {
		this.job = job;
		this.taken(job);
	}

	/**
	 * Do a deed; return whether it was kept. While another is under way it `waits` its turn where it can be done on whatever
	 * that leaves; else it is not done. The same one asked for twice at once, as by a double click, is done once.
	 */
	private async do(
		words: string,
		deed: Deed,
		{ waits = false, change }: { waits?: boolean; change?: Change } = {},
	): Promise<boolean> {
		const same = this.todo.find((one) => one.words === words);
		if (!this.job || (this.busy && (same || !waits))) return false;
		const asked: ToDo = { words, deed, change, done: false };
		this.todo = [...this.todo.filter((one) => one !== same), asked];
		if (!this.busy) this.underWay = this.work();
		await this.underWay;
		return asked.done;
	}

	/** Do what is to be done, one after the other, until something stands in the way of all. */
	private async work(): Promise<void> {
		this.busy = true;
		let refused: Problem | null = null;
		for (let [next] = this.todo; next && this.job; [next] = this.todo) {
			const { job } = this;
			const on = { path: { job_id: job.id }, header: { 'If-Match': `"${job.version}"` } };
			try {
				this.take(await answered(next.deed(job, on)));
				next.done = true;
			} catch (error) {
				refused = asProblem(error);
				if (refused.passing || refused.job) break;
			}
			this.todo = this.todo.slice(1);
		}
		this.problem = refused;
		this.busy = false;
	}
}
