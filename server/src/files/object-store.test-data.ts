import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { AwsClient } from 'aws4fetch';
import express, { type Request, type Response } from 'express';
import { hashOf } from './files';

export const STAND_IN_KEY = { region: 'us-east-1', key: 'harbour', secret: 'a key that opens one bucket' };
const BUCKET = '/pictures';
/** A page of a real store has a thousand names: few enough here that there are several pages. */
const NAMES_IN_A_PAGE = 3;

interface Kept {
  bytes: Buffer;
  at: Date;
}

/** A small object store, as much of the S3 protocol as Dorvel speaks: it checks who signed and what came. */
export interface StandInStore {
  /** Of its bucket. */
  address: string;
  objects: Map<string, Kept>;
  /** It answers everything with an error meanwhile. */
  isDown: boolean;
  close(): Promise<void>;
}

/** @param port 0 for any that is free */
export async function openStandIn(port = 0): Promise<StandInStore> {
  const objects = new Map<string, Kept>();
  const app = express();
  app.use(express.raw({ type: () => true, limit: '100mb' }));
  app.use(async (request, response, next) => {
    if (store.isDown) refuse(response, 503, 'SlowDown');
    else if (await isSigned(request)) next();
    else refuse(response, 403, 'SignatureDoesNotMatch');
  });
  app.get(BUCKET, (request, response) => {
    const said = (name: string) => (typeof request.query[name] === 'string' ? request.query[name] : '');
    const [after, prefix] = [said('continuation-token'), said('prefix')];
    const names = [...objects.keys()].sort().filter((name) => name > after && name.startsWith(prefix));
    const page = names.slice(0, NAMES_IN_A_PAGE);
    const more = names.length > page.length;
    const contents = page.map((name) => {
      const { bytes, at } = objects.get(name)!;
      return `<Contents><Key>${name}</Key><LastModified>${at.toISOString()}</LastModified><Size>${bytes.length}</Size></Contents>`;
    });
    response
      .type('application/xml')
      .send(
        `<?xml version="1.0" encoding="UTF-8"?><ListBucketResult xmlns="http://s3.amazonaws.com/doc/2006-03-01/"><IsTruncated>${more}</IsTruncated>${contents.join('')}${more ? `<NextContinuationToken>${page.at(-1)}</NextContinuationToken>` : ''}</ListBucketResult>`,
      );
  });
  // A name may have slashes in it.
  const at = `${BUCKET}/*name`;
  const nameIn = (request: Request<{ name: string[] }>) => request.params.name.join('/');
  app.put(at, (request: Request<{ name: string[] }>, response) => {
    const bytes = request.body as Buffer;
    if (request.get('content-length') !== String(bytes.length)) refuse(response, 411, 'MissingContentLength');
    else if (request.get('x-amz-content-sha256') === hashOf(bytes)) {
      objects.set(nameIn(request), { bytes, at: new Date() });
      response.end();
    } else refuse(response, 400, 'XAmzContentSHA256Mismatch');
  });
  app.get(at, (request: Request<{ name: string[] }>, response) => {
    const kept = objects.get(nameIn(request));
    if (!kept) {
      refuse(response, 404, 'NoSuchKey');
      return;
    }
    response.set({ 'content-type': 'image/webp', etag: `"${hashOf(kept.bytes).slice(0, 32)}"` });
    const asked = request.range(kept.bytes.length);
    if (asked === undefined) response.send(kept.bytes);
    else if (asked === -1 || asked === -2) {
      response.set('content-range', `bytes */${kept.bytes.length}`);
      refuse(response, 416, 'InvalidRange');
    } else {
      const [{ start, end } = { start: 0, end: 0 }] = asked;
      response.status(206).set('content-range', `bytes ${start}-${end}/${kept.bytes.length}`);
      response.send(kept.bytes.subarray(start, end + 1));
    }
  });
  app.delete(at, (request: Request<{ name: string[] }>, response) => {
    objects.delete(nameIn(request));
    response.status(204).end();
  });
  const server = await new Promise<Server>((resolve) => {
    const opening = app.listen(port, '127.0.0.1', () => resolve(opening));
  });
  const store: StandInStore = {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}${BUCKET}`,
    objects,
    isDown: false,
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
  return store;
}

/** Signed anew with the key that it knows: who has another comes to something else. */
async function isSigned(request: Request): Promise<boolean> {
  const { region, key, secret } = STAND_IN_KEY;
  const client = new AwsClient({ accessKeyId: key, secretAccessKey: secret, region, service: 's3' });
  const names = /SignedHeaders=([^,]+)/.exec(request.get('authorization') ?? '')?.[1]?.split(';') ?? [];
  const headers = Object.fromEntries(
    names.filter((name) => name !== 'host').map((name) => [name, request.get(name) ?? '']),
  );
  const again = await client.sign(`http://${request.get('host')}${request.originalUrl}`, {
    method: request.method,
    headers,
    aws: { datetime: request.get('x-amz-date') ?? '' },
  });
  return again.headers.get('authorization') === request.get('authorization');
}

function refuse(response: Response, status: number, code: string): void {
  response.status(status).type('application/xml').send(`<Error><Code>${code}</Code></Error>`);
}
