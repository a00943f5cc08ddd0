/** What the things of the pattern on the table are called: titles from the core, so that no internal name is read. */

class Names {
	titles = $state.raw<Record<string, string>>({});
}

export const names = new Names();

/** Begins the names of what only the right half has. */
const RIGHT = 'right:';

/** Return a name as either half has it. */
export function bare(name: string): string {
	return name.startsWith(RIGHT) ? name.slice(RIGHT.length) : name;
}

/** Return a name as the right half has it. */
export function ofRight(name: string): string {
	return RIGHT + bare(name);
}
