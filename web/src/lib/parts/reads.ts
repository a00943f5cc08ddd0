/**
 * Typed numbers on their way to the core and back. What is done with a form waits for them, so that a number typed last,
 * with the pointer already on the button, is not left behind.
 */
const underWay = new Set<Promise<unknown>>();
const unread = new Set<string>();

/** Note that a field is being read; `read` tells whether it could be. */
export async function reads(field: string, read: Promise<boolean>): Promise<void> {
	underWay.add(read);
	try {
		if (await read) unread.delete(field);
		else unread.add(field);
	} finally {
		underWay.delete(read);
	}
}

/** Forget a field that is gone. */
export function forget(field: string): void {
	unread.delete(field);
}

/** Wait until all that is typed has been read; return false where something could not be. */
export async function allRead(): Promise<boolean> {
	while (underWay.size) await Promise.all(underWay);
	return unread.size === 0;
}
