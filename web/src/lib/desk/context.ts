/** The desk of the job that is open, for the stages below the frame. */
import { getContext, setContext } from 'svelte';
import type { Desk } from './desk.svelte';

const KEY = Symbol('desk');

export function setDesk(desk: Desk): Desk {
	return setContext(KEY, desk);
}

export function getDesk(): Desk {
	const desk = getContext<Desk | undefined>(KEY);
	if (!desk) throw new Error('a stage stands inside JobFrame, which sets the desk');
	return desk;
}
