/** Something that is typed and not kept yet, put aside in this browser so that it outlives the page. */
import { store } from '../store';

export class PutAside<T> {
	/** Whether this browser could not put it aside. */
	unsafe = $state(false);

	constructor(private readonly place: string) {}

	/** Return what was put aside here before; null where nothing was, or where it is damaged. */
	read(): T | null {
		const text = store.read(this.place);
		if (!text) return null;
		try {
			return JSON.parse(text) as T;
		} catch {
			store.drop(this.place);
			return null;
		}
	}

	/** Put it aside; return whether that could be done. */
	write(what: T): boolean {
		this.unsafe = !store.write(this.place, JSON.stringify(what));
		return !this.unsafe;
	}

	drop(): void {
		store.drop(this.place);
	}
}
