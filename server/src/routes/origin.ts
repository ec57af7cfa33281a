import type { Request } from 'express';

/** By which a request has reached this server, as its sender wrote it. */
export const originOf = (request: Request): string => `${request.protocol}://${request.get('host') ?? 'localhost'}`;
