import { type DestinationStream, type Level, pino } from 'pino';

/** Where what a statement was given begins, in what Drizzle says of one that failed. */
const GIVEN = /\nparams: [^]*/;
const WEB_ADDRESS = /\b(?:https?|ftp):\/\/[^\s"'<>)]+/gi;
/** Of Node's and SQLite's own codes. */
const CODE = /^[A-Z][A-Z0-9_]+$/;

interface Asked {
  id: unknown;
  method: string;
  url: string;
  /** Of Express, which takes from `url` what its routers have gone by. */
  originalUrl?: string;
}

/** What is said of requests and their answers. */
export const REQUEST_WORDS = {
  req: ({ id, method, url, originalUrl = url }: Asked) => ({ id, method, path: originalUrl.split('?', 1)[0] }),
  res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
};

/**
 * The structured log. It says what the server does, and nothing of what anybody reads: of requests the method and the path
 * without what was asked, of errors no values and no addresses.
 *
 * @param into standard output when it is left out
 */
export function serverLog(level: Level | 'silent', into?: DestinationStream) {
  const options = { level, serializers: { err: errorWords, ...REQUEST_WORDS } };
  return into ? pino(options, into) : pino(options);
}

/** An error without what people read: statements without their values, no web addresses. */
function errorWords(error: unknown): unknown {
  if (!(error instanceof Error)) return typeof error;
  const { name, cause } = error;
  const code = 'code' in error && typeof error.code === 'string' && CODE.test(error.code) ? error.code : undefined;
  return {
    type: name,
    code,
    message: clean(error.message),
    stack: clean(error.stack ?? ''),
    ...(cause === undefined ? {} : { cause: errorWords(cause) }),
  };
}

/** A stack begins with the message, which may have several lines: of those with values none is kept. */
function clean(words: string): string {
  const frames = words.indexOf('\n    at ');
  const [said, rest] = frames < 0 ? [words, ''] : [words.slice(0, frames), words.slice(frames)];
  return `${said.replace(GIVEN, '').replace(WEB_ADDRESS, '…')}${rest}`;
}
