/**
 * What this browser keeps: small things, and a sheet that is being typed. A store that is full, forbidden or damaged must
 * not stop anything; whoever needs to know is told.
 */
export const store = {
	/** Return what is kept under a name, or null. */
	read(name: string): string | null {
		try {
			return globalThis.localStorage?.getItem(name) ?? null;
		} catch {
			return null;
		}
	},

	/** Keep a text; return whether that could be done. */
	write(name: string, text: string): boolean {
		try {
			globalThis.localStorage?.setItem(name, text);
			return true;
		} catch {
			return false;
		}
	},

	drop(name: string): void {
		try {
			globalThis.localStorage?.removeItem(name);
		} catch {
			// What cannot be reached cannot be read either.
		}
	},
};
