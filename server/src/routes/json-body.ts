import express, { type RequestHandler } from 'express';
import { HttpProblem } from './problem';

/** Nothing that is sent to us is nested half as deep; a parser and all that walks its outcome pay for each level. */
const DEEPEST = 64;
const QUOTE = 0x22;
const BACKSLASH = 0x5c;

/** Reads bodies of JSON, after a look at how deep they are nested. @param limit of bytes, such as `8mb` */
export function jsonBody(limit: string): RequestHandler {
  return express.json({ limit, verify: (_request, _response, bytes) => refuseDeep(bytes) });
}

/** @throws HttpProblem for JSON that is nested deeper than anything of ours */
function refuseDeep(bytes: Uint8Array): void {
  let depth = 0;
  let inText = false;
  for (let at = 0; at < bytes.length; at++) {
    const byte = bytes[at];
    if (inText) {
      if (byte === BACKSLASH) at++;
      else if (byte === QUOTE) inText = false;
    } else if (byte === QUOTE) inText = true;
    // [ and {, ] and }: they differ in one bit.
    else if (byte === 0x5b || byte === 0x7b) depth++;
    else if (byte === 0x5d || byte === 0x7d) depth--;
    if (depth > DEEPEST)
      throw new HttpProblem(400, 'bad-input', 'Input not understood', 'What was sent is nested too deep.');
  }
}
