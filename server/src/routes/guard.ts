import { isIP } from 'node:net';
import type { Account } from '@dorvel/core/model';
import { PROTOCOL_HEADER } from '@dorvel/core/sync';
import { parse as parseCookies } from 'cookie';
import type { CookieOptions, Request, RequestHandler, Response } from 'express';
import { type Caller, deviceWords } from '../accounts/caller';
import type { Sessions } from '../accounts/sessions';
import { HttpProblem, unauthenticated } from './problem';

/** Where there is TLS, by a name that browsers take from this very host only, not from one below it (RFC 6265bis, 4.1.3.2). */
const cookieName = (secure: boolean): string => (secure ? '__Host-dorvel_session' : 'dorvel_session');
const COOKIE_LIFE_MS = 90 * 24 * 60 * 60 * 1000;

export function sessionToken(request: Request, secure: boolean): string | undefined {
  return parseCookies(request.headers.cookie ?? '')[cookieName(secure)];
}

function cookieOptions(secure: boolean): CookieOptions {
  return { httpOnly: true, sameSite: 'lax', secure, path: '/' };
}

export function setSession(response: Response, token: string, secure: boolean): void {
  response.cookie(cookieName(secure), token, { ...cookieOptions(secure), maxAge: COOKIE_LIFE_MS });
}

export function clearSession(response: Response, secure: boolean): void {
  response.clearCookie(cookieName(secure), cookieOptions(secure));
}

/** Lets only signed-in requests pass, and sets the cookie again when the session was rotated. */
export function requireAccount(sessions: Sessions, secure: boolean): RequestHandler {
  return async (request, response, next) => {
    const token = sessionToken(request, secure);
    const session = token ? await sessions.resume(token, placeOf(request)) : null;
    if (!session) throw unauthenticated();
    if (session.rotatedTo) setSession(response, session.rotatedTo, secure);
    response.locals.account = session.account;
    response.locals.sessionId = session.id;
    next();
  };
}

/** The oldest clients who understand what they would get. Those that do not say which they are, are of 1. */
const OLDEST_PROTOCOL = 3;

/** Refuses clients that are too old for this server: a tab that was left open over an update, say. What they have to send waits. */
export const refuseOldClients: RequestHandler = (request, _response, next) => {
  if (!(Number(request.get(PROTOCOL_HEADER) ?? 1) >= OLDEST_PROTOCOL))
    throw new HttpProblem(
      426,
      'too-old',
      'Too old',
      'The server is newer than this Dorvel. Load this page anew, or update the extension. What you did meanwhile is kept, and sent then.',
    );
  next();
};

/** The account that requireAccount let in. */
export function accountOf(response: Response): Account {
  return response.locals.account as Account;
}

/** The session with which requireAccount let it in, by its id. */
export function sessionOf(response: Response): string {
  return response.locals.sessionId as string;
}

/** An IPv4 address is written as one, however the socket holds it (RFC 4291, 2.5.5.2). */
const placeOf = (request: Request): string => (request.ip ?? '').replace(/^::ffff:/i, '');

export function callerOf(request: Request): Caller {
  return { device: deviceWords(request.get('user-agent')), place: placeOf(request) };
}

/**
 * Refuses requests under a name that is not this server's: a page whose name was made to lead here (DNS rebinding) would
 * otherwise be let in as our own. Numbers cannot be made to lead elsewhere, so they always pass.
 *
 * @param names by which the server is reached, beside this machine's own
 */
export function refuseForeignHosts(names: readonly string[]): RequestHandler {
  const known = new Set(names);
  return (request, _response, next) => {
    const host = request.get('host') ?? '';
    const name = URL.canParse(`http://${host}`) ? new URL(`http://${host}`).hostname : '';
    const isOurs =
      known.has(name) || name === 'localhost' || name.endsWith('.localhost') || isIP(name.replace(/^\[|\]$/g, '')) > 0;
    if (!isOurs)
      throw new HttpProblem(
        421,
        'host',
        'Not this server',
        'This server does not go by that name. Its names are set by DORVEL_HOSTS.',
      );
    next();
  };
}

/**
 * Refuses writes that another site's page sent (cross-site request forgery): by Fetch Metadata where the browser
 * sends it, else by Origin; and takes only JSON and ZIP files, which a foreign form cannot send. SameSite=Lax stands behind it.
 */
export const refuseForgery: RequestHandler = (request, _response, next) => {
  if (request.method === 'GET' || request.method === 'HEAD') {
    next();
    return;
  }
  const site = request.get('sec-fetch-site');
  const origin = request.get('origin');
  const foreign = site
    ? site !== 'same-origin' && site !== 'none'
    : origin !== undefined && (!URL.canParse(origin) || new URL(origin).host !== request.get('host'));
  if (foreign) throw new HttpProblem(403, 'forgery', 'Refused', 'This request came from another site.');
  if (request.method !== 'DELETE' && !request.is(['application/json', 'application/zip']))
    throw new HttpProblem(415, 'media-type', 'Not JSON', 'Send application/json.');
  next();
};
