import type { Request } from 'express';
import type { Site } from '../accounts/passkeys';

/** By which a request has reached this server, as its sender wrote it. */
export const originOf = (request: Request): string => `${request.protocol}://${request.get('host') ?? 'localhost'}`;

/** What passkeys belong to. The name has been looked at before: it is one of ours (guard.ts). */
export const siteOf = (request: Request): Site => ({ origin: originOf(request), host: request.hostname });
