import { z } from 'zod';
import { PROTOCOL, PROTOCOL_HEADER } from '../sync';
import { clientOf, ServerProblem, Unreachable } from '.';

const Greeting = z.object({ hello: z.string() });
const problem = (status: number) => ({
  type: '/problems/x',
  title: 'X',
  status,
  detail: 'Sign in to go on.',
});
const HTML = '<!doctype html><title>Welcome to the train</title>';
let asked: [string, RequestInit | undefined][];
const clientThatHears = (answer: () => Response | Promise<Response>, headers = {}) => {
  asked = [];
  return clientOf({
    base: 'https://dorvel.example/api',
    credentials: 'same-origin',
    headers,
    fetch: async (url, init) => {
      asked.push([url as string, init]);
      return answer();
    },
  });
};
const failure = (work: Promise<unknown>) =>
  work.then(
    () => null,
    (error: unknown) => error,
  );

it('says which protocol it speaks, and reads what it hears', async () => {
  const client = clientThatHears(() => Response.json({ hello: 'reader' }), { authorization: 'Bearer s' });
  expect(await client.read(Greeting, 'POST', '/greet', { a: 1 })).toEqual({ hello: 'reader' });
  expect(asked).toEqual([
    [
      'https://dorvel.example/api/greet',
      expect.objectContaining({
        method: 'POST',
        body: '{"a":1}',
        headers: {
          [PROTOCOL_HEADER]: String(PROTOCOL),
          authorization: 'Bearer s',
          'content-type': 'application/json',
        },
      }),
    ],
  ]);
});

it.each([401, 413, 422, 500])('tells the server’s own %d in the server’s words', async (status) => {
  const client = clientThatHears(() => Response.json(problem(status), { status }));
  for (const error of [
    await failure(client.read(Greeting, 'GET', '/greet')),
    await failure(client.send('DELETE', '/session')),
  ])
    expect(error).toMatchObject({ name: 'ServerProblem', status, message: 'Sign in to go on.' });
});

it.each([
  [200, HTML],
  [200, '{"hello":1}'],
  [401, HTML],
  [401, '{"error":"sign in to the network"}'],
  [511, ''],
])('takes %d with “%s” for somebody else', async (status, body) => {
  const client = clientThatHears(() => new Response(body, { status }));
  const error = await failure(client.read(Greeting, 'GET', '/greet'));
  expect(error).toBeInstanceOf(Unreachable);
  expect(error).toMatchObject({ status });
  expect(error).not.toBeInstanceOf(ServerProblem);
});

it('says when nobody answered', async () => {
  const client = clientThatHears(() => Promise.reject(new TypeError('Failed to fetch')));
  expect(await failure(client.send('GET', '/greet'))).toMatchObject({ name: 'Unreachable', status: null });
});
