/**
 * A recipe being tried: what it is looked at with, and what came of it. Several can be tried at once, to be laid over each
 * other; they take turns with the server and share the pieces that they have in common.
 */
import { untrack } from 'svelte';
import { answered, api, asProblem, type Piece, type Preview, type Problem, type Recipe } from '../api/client';
import { Lane, Latest } from '../api/latest';

/** What a recipe is worked out on. */
export interface Ground {
	job: string;
	sheet: number;
}

/** What is shown of a trial, and what it is compared with. */
export interface Looked {
	/** The muslin that its lines are compared with. */
	against: number | null;
	/** The recipe that its lines are compared with. */
	than: Recipe | null;
	/** Whether cutting lines are wanted. */
	cut: boolean;
	/** Whether the source pieces are shown, under the style. */
	source: boolean;
}

const PLAIN: Looked = { against: null, than: null, cut: false, source: false };
/** Some more pieces than are shown are kept: undo then needs none of them twice. */
const SPARE = 24;

/** The pieces that the page has, so that none is sent twice. */
export class Pieces {
	readonly lane = new Lane();
	// Nothing on the screen hangs on it: the pieces of a trial do.
	// eslint-disable-next-line svelte/prefer-svelte-reactivity
	private readonly known = new Map<string, Piece>();

	get keys(): string[] {
		return [...this.known.keys()];
	}

	/** Return the pieces of an answer, those that were left out of it from those that are known. */
	of(answer: Preview): Piece[] {
		for (const piece of answer.pieces) this.known.set(piece.key, piece);
		const found = answer.order.map((key) => this.known.get(key)!);
		// What was used last stands last; what was not used for longest goes first.
		for (const piece of found) {
			this.known.delete(piece.key);
			this.known.set(piece.key, piece);
		}
		for (const key of this.keys.slice(0, -SPARE - found.length)) this.known.delete(key);
		return found;
	}
}

export class Trial {
	// Answers are replaced whole, never changed in place: raw state spares wrapping thousands of points.
	recipe = $state.raw<Recipe | null>(null);
	looked = $state.raw<Looked>(PLAIN);
	preview = $state.raw<Preview | null>(null);
	pieces = $state.raw<Piece[]>([]);
	problem = $state.raw<Problem | null>(null);
	/** Milliseconds from a wish to its result, for the person who wonders. */
	took = $state(0);

	/** What is shown or on its way, as one text. */
	private wished = '';
	private readonly previews: Latest<{ body: Asked; began: number }, Preview>;

	constructor(
		private readonly ground: () => Ground | null,
		store: Pieces,
		/** Told of each answer, or of why there is none. */
		private readonly told: { shown?: (answer: Preview) => void; offline?: (problem: Problem) => void } = {},
	) {
		this.previews = new Latest(
			async ({ body }) =>
				(await answered(api.POST('/api/preview', { body: { ...body, known: store.keys } }))) as Preview,
			(answer, { began }) => {
				this.pieces = store.of(answer);
				this.preview = answer;
				this.problem = null;
				this.took = performance.now() - began;
				this.told.shown?.(answer);
			},
			(error) => {
				const problem = asProblem(error);
				this.wished = '';
				if (problem.passing) this.told.offline?.(problem);
				else this.problem = problem;
			},
			store.lane,
		);
	}

	/** Try a recipe, and look at it so; what is not said of the look stays as it is. */
	try(recipe: Recipe, look: Partial<Looked> = {}): void {
		this.recipe = recipe;
		this.look(look);
	}

	/** Look at it otherwise. */
	look(look: Partial<Looked>): void {
		// Who asks for a look does not hang on what was looked at before.
		untrack(() => {
			this.looked = { ...this.looked, ...look };
			this.work();
		});
	}

	/** Look at it as it is, compared with nothing, but for what is said. */
	begin(look: Partial<Looked>): void {
		this.looked = { ...PLAIN, ...look };
	}

	/** Work it out, unless that is what is shown already. */
	private work(): void {
		const ground = this.ground();
		if (!ground || !this.recipe) return;
		const body: Asked = { ...ground, ...this.looked, recipe: this.recipe };
		const wished = JSON.stringify(body);
		if (wished === this.wished) return;
		this.wished = wished;
		this.previews.wish({ body, began: performance.now() });
	}
}

type Asked = Ground & Looked & { recipe: Recipe };
