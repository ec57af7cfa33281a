import type { Request, RequestHandler } from 'express';
import { ipKeyGenerator, rateLimit } from 'express-rate-limit';
import { HttpProblem, sendProblem } from './problem';

const WINDOW_MS = 15 * 60 * 1000;

interface Tries {
  /** So many that come to nothing in a quarter of an hour. */
  most: number;
  /** Whose tries are counted together; by default those of one network address. */
  of?(request: Request): string | null;
  /** Whether what comes to something counts too. */
  countAll?: boolean;
}

/** Holds up who guesses: passphrases, codes, passkeys. */
export function limitTries({ most, of, countAll = false }: Tries): RequestHandler {
  return rateLimit({
    windowMs: WINDOW_MS,
    limit: most,
    skipSuccessfulRequests: !countAll,
    keyGenerator: (request) => of?.(request) ?? ipKeyGenerator(request.ip ?? ''),
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request, response) =>
      sendProblem(
        response,
        new HttpProblem(429, 'too-many-tries', 'Too many tries', 'Wait a quarter of an hour, then try again.'),
      ),
  });
}
