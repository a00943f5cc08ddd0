/** Keys that are commands unless somebody types a text. */

const CHOSEN = new Set(['range', 'checkbox', 'radio', 'button', 'submit']);

/** Return whether what has the focus takes a text: in a slider, a box or a list a key is still a command. */
export function typedInto(target: Element): boolean {
	const field = target.closest('input, textarea, [contenteditable="true"]');
	return !!field && !(field instanceof HTMLInputElement && CHOSEN.has(field.type));
}
