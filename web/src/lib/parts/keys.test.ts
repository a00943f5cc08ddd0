import { expect, it } from 'vitest';
import { typedInto } from './keys';

it.each([
	['<input type="text">', true],
	['<textarea></textarea>', true],
	['<input type="range">', false],
	['<input type="checkbox">', false],
	['<select><option>1</option></select>', false],
	['<button>1</button>', false],
])('in %s a key is typed: %s', (html, typed) => {
	document.body.innerHTML = html;
	expect(typedInto(document.body.firstElementChild!)).toBe(typed);
});
