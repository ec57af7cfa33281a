import type { z } from 'zod';
import { Problem } from '../model';
import { PROTOCOL, PROTOCOL_HEADER } from '../sync';
import { readToldFile } from './told-file';

/** The server answered, in its own words, that it cannot do what was asked. `message` is written for the reader. */
export class ServerProblem extends Error {
  override readonly name = 'ServerProblem';
  constructor(
    readonly status: number,
    readonly detail: string,
  ) {
    super(detail);
  }
}

/** The server could not be reached, or something else answered in its place: a network’s sign-in page, say. */
export class Unreachable extends Error {
  override readonly name = 'Unreachable';
  constructor(
    message: string,
    /** Of what answered in the server's place; null when nothing did. */
    readonly status: number | null = null,
    options?: ErrorOptions,
  ) {
    super(message, options);
  }
}

/** How a server is spoken to. */
interface Connection {
  /** What stands before every path. */
  base: string;
  /** The browser's own, or a test's. */
  fetch: typeof fetch;
  credentials: 'same-origin' | 'omit';
  headers?: Readonly<Record<string, string>>;
  timeoutMs?: number;
}

/** A server's routes. Every call throws ServerProblem or Unreachable when it comes to nothing. */
export interface Client {
  /** Asks for something, and reads the answer by its schema. */
  read<Schema extends z.ZodType>(
    schema: Schema,
    method: string,
    path: string,
    body?: unknown,
  ): Promise<z.output<Schema>>;
  /** Asks for a file, which may take as long as it takes. */
  file(path: string): Promise<Blob>;
  /**
   * The same for one that is long in the making.
   *
   * @param step told how much of it is done
   */
  toldFile(
    path: string,
    step: (done: number, of: number) => void,
    signal: AbortSignal,
  ): Promise<{ name: string; content: Blob }>;
  /** Asks for something whose answer has nothing to say. */
  send(method: string, path: string, body?: unknown): Promise<void>;
}

const TIMEOUT_MS = 30_000;

/**
 * Speaks to a server. Only answers that are the server's own count: all else is Unreachable, so that nobody is signed
 * out, and nothing refused, by a stranger on the way.
 */
export function clientOf({ base, fetch, credentials, headers, timeoutMs = TIMEOUT_MS }: Connection): Client {
  async function answerTo(
    method: string,
    path: string,
    body: unknown,
    signal = AbortSignal.timeout(timeoutMs),
  ): Promise<Response> {
    let response: Response;
    try {
      response = await fetch(`${base}${path}`, {
        method,
        credentials,
        signal,
        headers: {
          [PROTOCOL_HEADER]: String(PROTOCOL),
          ...headers,
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        },
        ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      });
    } catch (error) {
      throw new Unreachable('No connection to the server.', null, { cause: error });
    }
    if (response.ok) return response;
    const problem = Problem.safeParse(await response.json().catch(() => null)).data;
    throw problem ? new ServerProblem(response.status, problem.detail) : foreign(response);
  }
  return {
    async read(schema, method, path, body) {
      const response = await answerTo(method, path, body);
      const parsed = schema.safeParse(await response.json().catch(() => null));
      if (!parsed.success) throw foreign(response, parsed.error);
      return parsed.data;
    },
    async file(path) {
      const response = await answerTo('GET', path, undefined, new AbortController().signal);
      return response.blob();
    },
    async toldFile(path, step, signal) {
      const response = await answerTo('GET', path, undefined, signal);
      try {
        return await readToldFile(chunksOf(response), step);
      } catch (error) {
        throw signal.aborted ? error : foreign(response, error);
      }
    },
    async send(method, path, body) {
      await answerTo(method, path, body);
    },
  };
}

/** Not every browser lets a body be gone through by itself. */
async function* chunksOf({ body }: Response): AsyncGenerator<Uint8Array<ArrayBuffer>> {
  const reader = body?.getReader();
  for (let read = await reader?.read(); read && !read.done; read = await reader?.read()) yield read.value;
}

function foreign({ status }: Response, cause?: unknown): Unreachable {
  return new Unreachable(
    `Something else answered in the server’s place (${status}): a network that wants a sign-in, perhaps.`,
    status,
    { cause },
  );
}
