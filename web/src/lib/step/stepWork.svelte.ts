/** A step that is worked: tried on the table at once, then kept, or left as it was. */
import { untrack } from 'svelte';
import {
	api,
	type Half,
	type Line,
	type Offer,
	type Operation,
	type Piece,
	type Stage,
	type Step,
} from '../api/client';
import type { Desk } from '../desk/desk.svelte';
import { operations } from '../desk/operations.svelte';
import { newStep, withStep } from '../desk/recipe';
import { allRead } from '../parts/reads';
import type { Subject } from '../table/picking';
import type { Place } from '../table/view';
import { linesOf, placeIn, Places } from './places.svelte';

export class StepWork {
	/** The step, and whether it is new; null while none is worked. */
	editing = $state.raw<{ step: Step; isNew: boolean } | null>(null);
	/** The field that waits for a thing to be pointed at. */
	waiting = $state<string | null>(null);
	/** The pieces as they are kept. */
	private before = $state.raw<Piece[]>([]);
	private readonly lines = new Places();

	/** To be made while a component is; `ondone` is told when a step is kept or left. */
	constructor(
		private readonly desk: Desk,
		private readonly ondone: () => void,
	) {
		void operations.load();
		// On which lines its places lie: empty where it has none.
		const lying = $derived(this.editing && this.operation ? linesOf(this.operation, this.editing.step) : '');
		$effect(() => {
			if (lying) untrack(() => this.editing && this.lines.look(desk, this.editing.step));
			else this.lines.clear();
		});
	}

	get operation(): Operation | undefined {
		return this.editing ? operations.of(this.editing.step.kind) : undefined;
	}

	get stage(): Stage | undefined {
		return this.desk.trial.preview?.stages.find((one) => one.step.uid === this.editing?.step.uid);
	}

	/** The pieces that the step changes, as they were: the old lines, in pencil. */
	get old(): Piece[] {
		if (!this.editing) return [];
		const { pieces } = this.desk.trial;
		return this.before.filter((piece) => {
			const now = pieces.find((other) => other.name === piece.name);
			return !now || drawnAs(now) !== drawnAs(piece);
		});
	}

	/** Where its places lie, to be drawn along their lines. */
	get places(): Place[] {
		return this.editing && this.operation ? this.lines.of(this.operation, this.editing.step) : [];
	}

	get placeLines(): Places['lines'] {
		return this.lines.lines;
	}

	/** Begin a step that is offered. */
	choose(offer: Offer): void {
		this.begin(newStep(offer.kind, offer.params, { version: offer.version, half: offer.half as Half }), true);
		this.attempt(this.editing!.step);
	}

	/** Begin a step as it is given: a new one, or one of the recipe. */
	begin(step: Step, isNew: boolean): void {
		this.before = this.desk.trial.pieces;
		this.editing = { step, isNew };
	}

	attempt = (step: Step): void => {
		if (!this.desk.job || !this.editing) return;
		this.editing = { ...this.editing, step };
		this.desk.trial.try(withStep(this.desk.job.recipe, step));
	};

	/** Open a step of the recipe; return whether it is there. */
	open(uid: string): boolean {
		const step = this.desk.job?.recipe.steps?.find((one) => one.uid === uid);
		if (step) this.begin(step, false);
		return !!step;
	}

	keep = async (): Promise<void> => {
		if (!(await allRead()) || !this.editing) return;
		const { step, isNew } = this.editing;
		const words = this.stage?.words ?? this.operation?.title ?? step.kind;
		const kept = await this.desk.deeds.keep(
			(recipe) => withStep(recipe, step),
			isNew ? words : `Changed: ${words}`,
		);
		if (kept) this.done();
	};

	leave = (): void => {
		this.done();
		this.desk.leave();
	};

	private done(): void {
		this.editing = null;
		this.waiting = null;
		this.ondone();
	}

	/** A thing was pointed at: it fills the field that waits. */
	pick(subject: Subject): void {
		if (this.waiting && subject.kind === 'line') void this.setLine(this.waiting, subject);
	}

	/** A place was drawn along its line. */
	place = (name: string, share: number): void => {
		if (!this.editing) return;
		const along = { ...placeIn(this.editing.step, name), fraction: share };
		this.set(name, along);
	};

	setLine = async (name: string, subject: Subject): Promise<void> => {
		if (!this.editing || !this.desk.job) return;
		const field = this.operation?.fields.find((one) => one.name === name);
		const { id, sheet, recipe } = this.desk.job;
		const body = { sheet: sheet.id, recipe, job: id, ...subject };
		const found = await this.desk.ask<Line>(api.POST('/api/lines', { body }));
		if (!found) return;
		const { fraction, ...line } = found;
		this.set(name, field?.kind === 'place' ? { ...line, fraction } : line);
		this.waiting = null;
	};

	private set(name: string, entered: unknown): void {
		const step = this.editing?.step;
		if (step) this.attempt({ ...step, params: { ...step.params, [name]: entered } as Step['params'] });
	}
}

/** A piece's outline as text: its key changes with all that is told of it, such as how many pieces there are. */
function drawnAs(piece: Piece): string {
	return JSON.stringify(piece.edges.map((edge) => edge.curve));
}
