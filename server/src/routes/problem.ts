import { Problem } from '@dorvel/core/model';
import { inputWords } from '@dorvel/core/wording';
import type { ErrorRequestHandler, RequestHandler, Response } from 'express';
import type { Logger } from 'pino';
import { z } from 'zod';
import { isBusy, isDiskFull } from '../db/open';

/** Thrown by routes; answered as RFC 9457 problem details. */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly kind: string,
    readonly title: string,
    readonly detail: string,
  ) {
    super(detail);
  }
}

export const unauthenticated = () =>
  new HttpProblem(
    401,
    'sign-in',
    'Signed out',
    'Sign in to go on. What you changed on this device is kept and sent afterwards.',
  );
export const notFound = (what: string) =>
  new HttpProblem(404, 'not-found', 'Not found', `${what} is not in this library.`);

export function sendProblem(response: Response, problem: HttpProblem): void {
  response
    .status(problem.status)
    .type('application/problem+json')
    .send(
      JSON.stringify(
        Problem.parse({
          type: `/problems/${problem.kind}`,
          title: problem.title,
          status: problem.status,
          detail: problem.detail,
        }),
      ),
    );
}

/** The last handler: turns whatever was thrown into problem details that say what to do. */
export function problemHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, _request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    sendProblem(response, asProblem(error, log));
  };
}

function asProblem(error: unknown, log: Logger): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (error instanceof z.ZodError) return new HttpProblem(400, 'bad-input', 'Input not understood', inputWords(error));
  if (isDiskFull(error)) {
    log.error({ err: error }, 'disk full');
    return new HttpProblem(
      507,
      'disk-full',
      'No room left',
      'The server’s disk is full. What you changed is kept on this device and sent when there is room.',
    );
  }
  if (isBusy(error)) {
    log.warn({ err: error }, 'database busy');
    return new HttpProblem(
      503,
      'busy',
      'Busy',
      'The library is in use by another program. Nothing is lost; it is tried again.',
    );
  }
  const status = error instanceof Error && 'status' in error ? Number(error.status) : 500;
  if (status === 413)
    return new HttpProblem(413, 'too-large', 'Too large', 'That is more than the server takes in one request.');
  if (status >= 400 && status < 500)
    return new HttpProblem(status, 'bad-input', 'Input not understood', 'The request could not be read.');
  log.error({ err: error }, 'request failed');
  return new HttpProblem(
    500,
    'server',
    'Something went wrong',
    'The server met an error. Nothing on this device is lost; try again in a moment.',
  );
}

export const unknownRoute: RequestHandler = (request) => {
  throw new HttpProblem(404, 'not-found', 'Not found', `There is nothing at ${request.path}.`);
};
