/** For tests: a server that answers as it is told, and remembers what it was asked; what a recipe has where nothing is given. */
import { vi } from 'vitest';
import type { Given } from './api/client';

export interface Asked {
	method: string;
	path: string;
	headers: Headers;
	body: Record<string, unknown>;
}

export function json(body: unknown, status = 200): Response {
	return new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });
}

/** Stand in for the server; return what it is asked. */
export function serving(answer: (asked: Asked) => Response | Promise<Response>): Asked[] {
	const asked: Asked[] = [];
	vi.stubGlobal('fetch', async (request: Request) => {
		const text = await request.clone().text();
		const { pathname } = new URL(request.url);
		const one = {
			method: request.method,
			path: pathname,
			headers: request.headers,
			body: text ? (JSON.parse(text) as Record<string, unknown>) : {},
		};
		asked.push(one);
		return answer(one);
	});
	return asked;
}

/** Wait until what was asked for has come in. */
export function arrived(): Promise<void> {
	return new Promise((done) => setTimeout(done, 10));
}

/** A recipe's given pieces where there are none. */
export const NOTHING_GIVEN: Given = {
	source: 'drape',
	panels: [],
	seams: [],
	open: [],
	levels: {},
	ease: {},
	enlarged: null,
	graded: null,
};
