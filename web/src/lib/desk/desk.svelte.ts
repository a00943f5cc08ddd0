/**
 * A job on the desk: what is kept of it, and what lies on the table: the recipe as it is being tried. Other trials can be
 * made beside it.
 */
import type { Answer, Job, Problem, Recipe } from '../api/client';
import { Loaded } from '../api/loaded.svelte';
import { Deeds } from './deeds.svelte';
import { names } from './names.svelte';
import { Pieces, Trial, type Ground, type Looked } from './trial.svelte';

export class Desk {
	readonly deeds: Deeds;
	/** What lies on the table. */
	readonly trial: Trial;
	/** What could not be read, or that the server does not answer. */
	private unread = $state.raw<Problem | null>(null);
	private readonly pieces = new Pieces();

	constructor() {
		this.deeds = new Deeds(
			(job) => this.trial.try(job.recipe),
			(recipe) => this.trial.try(recipe),
		);
		this.trial = new Trial(() => this.ground, this.pieces, {
			shown: (answer) => {
				names.titles = answer.titles;
				if (this.unread?.passing) this.unread = null;
			},
			offline: (problem) => (this.unread = problem),
		});
	}

	get job(): Job | null {
		return this.deeds.job;
	}

	/** Whether what lies on the table is what is kept. */
	get saved(): boolean {
		return this.trial.recipe === this.job?.recipe;
	}

	/** What went wrong, for all to see. */
	get problem(): Problem | null {
		return this.deeds.problem ?? this.unread;
	}

	private get ground(): Ground | null {
		return this.job && { job: this.job.id, sheet: this.job.sheet.id };
	}

	/** Begin a stage: what it compares with and whether it cuts, on the recipe as kept. */
	begin(look: Partial<Looked> = {}): void {
		this.trial.begin(look);
		this.leave();
	}

	/** Go back to the recipe as kept. */
	leave(): void {
		if (this.job) this.trial.try(this.job.recipe);
	}

	/** Try another recipe at the same time, to be laid over what is on the table. */
	another(recipe: Recipe, look: Partial<Looked> = {}): Trial {
		const trial = new Trial(() => this.ground, this.pieces, {
			offline: (problem) => (this.unread = problem),
		});
		trial.try(recipe, look);
		return trial;
	}

	/** Return a place for something that a stage reads; what goes wrong with it is told at the head of the job. */
	reads<T>(): Loaded<T> {
		return new Loaded<T>((problem) => (this.unread = problem));
	}

	/** Ask the server something once; return its answer, or null where it cannot be had, which is told. */
	ask<T>(call: Promise<Answer<unknown>>): Promise<T | null> {
		return this.reads<T>().load(call);
	}

	/** Do again what failed. */
	async again(): Promise<void> {
		this.unread = null;
		await this.deeds.again();
	}

	/** The problem was read. */
	understood(): void {
		this.unread = null;
		this.deeds.problem = null;
	}
}
