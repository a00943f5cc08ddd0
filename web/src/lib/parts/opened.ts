/**
 * A list that acts as soon as something is chosen. Closed, a browser chooses at once what an arrow or a letter comes to: so
 * by keyboard an arrow opens it first, and a letter is left to the keys of the page. Open, both go through it.
 */
export function openedFirst(list: HTMLSelectElement): { destroy: () => void } {
	function key(event: KeyboardEvent): void {
		if (event.ctrlKey || event.metaKey || event.altKey) return;
		// A browser that cannot open a list at a word keeps its own way.
		if (!('showPicker' in list)) return;
		const arrow = event.key === 'ArrowDown' || event.key === 'ArrowUp';
		const letter = /^\S$/u.test(event.key);
		if (arrow || letter) event.preventDefault();
		if (arrow) list.showPicker();
	}
	list.addEventListener('keydown', key);
	return { destroy: () => list.removeEventListener('keydown', key) };
}
