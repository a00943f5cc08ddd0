/** What a person takes over a traced picture: corners, notches and pencil marks, each taken, moved or dropped; and undone. */
import type { TakenPlace } from '../../lib/api/client';

/** A place in a picture, pixels. */
export type Pixel = [number, number];

export type TakenKind = TakenPlace['kind'];

/** What each is called, and the key that takes one at the pointer. */
export const TAKES: { kind: TakenKind; key: string }[] = [
	{ kind: 'corner', key: 'o' },
	{ kind: 'notch', key: 'n' },
	{ kind: 'dot', key: 'd' },
	{ kind: 'cross', key: 'c' },
	{ kind: 'dash', key: 'h' },
];

export class TakenPlaces {
	/** As they stand; the server says where what was pointed at came to lie. */
	all = $state.raw<TakenPlace[]>([]);
	/** The one that is moved or dropped by key. */
	current = $state<number | null>(null);
	/** The one that is on its way: a key held down moves it many times, and undoing takes all of that back. */
	private moving: number | null = null;
	/** How they stood before each change. */
	private before = $state.raw<TakenPlace[][]>([]);

	/** Told of every change. */
	constructor(private readonly onchange: () => void) {}

	get canUndo(): boolean {
		return this.before.length > 0;
	}

	/** Begin with what was found in a picture. */
	begin(all: TakenPlace[]): void {
		this.all = all;
		this.before = [];
		this.current = this.moving = null;
	}

	/** See where what was pointed at came to lie: its order is the server's. */
	stands(all: TakenPlace[]): void {
		const chosen = this.current === null ? undefined : this.all[this.current];
		this.all = all;
		this.moving = null;
		if (chosen) this.current = nearestOf(all, chosen);
	}

	/** Take what is near to a place. */
	take(kind: TakenKind, at: Pixel): void {
		this.change([...this.all, { kind, at, exact: false }]);
		this.current = this.all.length - 1;
	}

	/** Move one to just there. */
	move(i: number, at: Pixel): void {
		const moved = this.all.map((one, n) => (n === i ? { ...one, at, exact: true } : one));
		if (this.moving === i) {
			this.all = moved;
			this.onchange();
		} else this.change(moved);
		this.current = this.moving = i;
	}

	drop(i: number): void {
		this.change(this.all.filter((_, n) => n !== i));
		this.current = null;
	}

	undo(): void {
		const last = this.before.at(-1);
		if (!last) return;
		this.before = this.before.slice(0, -1);
		this.all = last;
		this.current = this.moving = null;
		this.onchange();
	}

	private change(all: TakenPlace[]): void {
		this.before = [...this.before, this.all];
		this.all = all;
		this.moving = null;
		this.onchange();
	}
}

/** Return the number of the place of the same kind that lies nearest, or null where there is none. */
export function nearestOf(all: readonly TakenPlace[], to: TakenPlace): number | null {
	let found: number | null = null;
	let least = Infinity;
	for (const [i, one] of all.entries()) {
		const far = Math.hypot(one.at[0]! - to.at[0]!, one.at[1]! - to.at[1]!);
		if (far < least && (one.kind === to.kind || PENCIL.has(one.kind) === PENCIL.has(to.kind))) {
			found = i;
			least = far;
		}
	}
	return found;
}

/** A click near a mark takes that mark, whatever kind was asked for. */
const PENCIL = new Set<TakenKind>(['dot', 'cross', 'dash']);
