import type { Request, RequestHandler } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import type { Tries } from '../accounts/tries';
import { HttpProblem, sendProblem } from './problem';

const MINUTE_MS = 60_000;
const TRIES_MINUTES = 15;

const refuse =
  (problem: HttpProblem): RequestHandler =>
  (_request, response) =>
    sendProblem(response, problem);

/** So much is taken from one network address, and no more. @param minutes in which it is counted */
export function limitRate(most: number, minutes: number): RequestHandler {
  return rateLimit({
    windowMs: minutes * MINUTE_MS,
    limit: most,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: refuse(
      new HttpProblem(429, 'too-much', 'Too much at once', 'That was too much at once. Wait a little, then try again.'),
    ),
  });
}

interface Limit {
  /** What is tried: each limit counts for itself. */
  name: string;
  /** So many that come to nothing in a quarter of an hour. */
  most: number;
  /** Whose tries are counted together; by default those of one network address. */
  of?(request: Request): string | null;
}

/** Holds up who guesses: passphrases, codes, passkeys. */
export function limitTries(tries: Tries, { name, most, of }: Limit): RequestHandler {
  return rateLimit({
    windowMs: TRIES_MINUTES * MINUTE_MS,
    limit: most,
    store: tries(name, TRIES_MINUTES * MINUTE_MS),
    skipSuccessfulRequests: true,
    keyGenerator: (request) => of?.(request) ?? ipKeyGenerator(request.ip ?? ''),
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: refuse(
      new HttpProblem(429, 'too-many-tries', 'Too many tries', 'Wait a quarter of an hour, then try again.'),
    ),
  });
}
