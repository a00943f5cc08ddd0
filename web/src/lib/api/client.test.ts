import { expect, test, vi } from 'vitest';
import { json, serving } from '../testing';
import { answered, api, asProblem, freshName, Problem } from './client';

function answer(status: number, body: unknown) {
	return Promise.resolve({
		data: status < 400 ? body : undefined,
		error: status < 400 ? undefined : body,
		response: new Response(null, { status }),
	});
}

test('an answer gives its data', async () => {
	expect(await answered(answer(200, { cm: 92 }))).toEqual({ cm: 92 });
});

test('a problem is told with what to do and where', async () => {
	const body = {
		title: 'value out of range',
		detail: 'Bust ease of 40 cm is outside 3 to 12 cm.',
		fix: 'Choose a value in that range.',
		where: ['bust_ease'],
	};
	const problem = await answered(answer(422, body)).catch((error: unknown) => error as Problem);
	expect(problem).toBeInstanceOf(Problem);
	expect(problem).toMatchObject({
		status: 422,
		code: 'value-out-of-range',
		fix: body.fix,
		where: body.where,
	});
	expect((problem as Problem).message).toBe(body.detail);
	expect((problem as Problem).offline).toBe(false);
});

test('a conflict carries the newer state', async () => {
	const body = { title: 'job changed', detail: 'changed elsewhere', fix: 'look', job: { version: 3 } };
	const problem = await answered(answer(412, body)).catch((error: unknown) => error as Problem);
	expect((problem as Problem).job).toEqual({ version: 3 });
});

test('a server that does not answer is a problem of its own: nothing entered is lost', async () => {
	const problem = await answered(Promise.reject(new TypeError('Failed to fetch'))).catch(
		(e: unknown) => e as Problem,
	);
	expect(problem).toMatchObject({ status: 0, code: 'no-answer', offline: true });
	expect((problem as Problem).fix).toContain('still here');
});

test('a call that was given up stays what it is', async () => {
	const aborted = new DOMException('given up', 'AbortError');
	await expect(answered(Promise.reject(aborted))).rejects.toBe(aborted);
});

test('an answer without a problem body still says something', async () => {
	const problem = await answered(answer(500, undefined)).catch((error: unknown) => error as Problem);
	expect((problem as Problem).message).toContain('500');
});

test('whatever is thrown becomes a problem', () => {
	const problem = new Problem(404, 'not-found', 'gone', 'go back');
	expect(asProblem(problem)).toBe(problem);
	expect(asProblem(new Error('odd')).code).toBe('unexpected');
});

test('fresh names are fresh and plain', () => {
	vi.stubGlobal('crypto', { randomUUID: () => '01234567-89ab-cdef-0123-456789abcdef' });
	expect(freshName('s')).toBe('s-01234567-89a');
	vi.unstubAllGlobals();
	expect(new Set(Array.from({ length: 50 }, () => freshName('f'))).size).toBe(50);
});

test('a cookie that the browser has lost is fetched anew, and the change is sent once more', async () => {
	document.cookie = 'csrftoken=; max-age=0';
	const asked = serving(({ method, headers }) => {
		if (method === 'GET') {
			document.cookie = 'csrftoken=fresh';
			return json({});
		}
		return headers.get('X-CSRFToken') === 'fresh'
			? json({ id: 'w' }, 201)
			: json({ title: 'token missing' }, 403);
	});
	const wearer = await answered(api.POST('/api/wearers', { body: { name: 'Odile Varn', note: '' } }));
	expect(wearer).toEqual({ id: 'w' });
	expect(asked.map(({ method }) => method)).toEqual(['POST', 'GET', 'POST']);
	expect(asked.at(2)?.body).toEqual({ name: 'Odile Varn', note: '' });
});

test('what is refused for good is sent once more and no more', async () => {
	const asked = serving(() => json({ title: 'token missing', detail: 'no', fix: 'load' }, 403));
	const refused = await answered(api.POST('/api/wearers', { body: { name: 'x', note: '' } })).catch(
		(e: unknown) => e,
	);
	expect(refused).toMatchObject({ status: 403, code: 'token-missing', passing: false });
	expect(asked).toHaveLength(3);
});
