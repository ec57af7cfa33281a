import http from 'node:http';

/** Dorvel as it is, and then other versions of it, at one address. */
export interface TwoVersions {
  origin: string;
  /** From now on it is another version: each file that is named by its content has another name, and those of before are gone. */
  update(): void;
  close(): Promise<void>;
}

const turned = (hash: string, by: number) => hash.slice(by) + hash.slice(0, by);
/** Names by content, and what the service worker goes by for the others, turned by so many characters. */
const renamed = (text: string, by: number) =>
  text
    .replace(/(?<=-)[0-9a-f]{32}(?=\.(?:js|css))/g, (hash) => turned(hash, by))
    .replace(/(?<=revision["']?:["'])[0-9a-f]{32}/g, (hash) => turned(hash, by));

/** A door before a server. @param server its origin */
export async function openTwoVersions(server: string, port: number): Promise<TwoVersions> {
  let version = 0;
  const givenAt = new Map<string, number>();
  const door = http.createServer((request, response) => {
    const path = request.url ?? '/';
    const ofName = /-([0-9a-f]{32})\.(?:js|css)$/.exec(path);
    // What of the first version is kept says nothing of the other.
    const { 'if-none-match': _tag, 'if-modified-since': _since, ...headers } = request.headers;
    const asked = http.request(
      new URL(renamed(path, -version), server),
      { method: request.method, headers: { ...headers, 'accept-encoding': 'identity' } },
      (answer) => {
        const isText = /html|javascript|css/.test(answer.headers['content-type'] ?? '');
        // What the browser keeps of itself is no help: it may throw it away whenever it wants the room.
        answer.headers['cache-control'] = 'no-store';
        if (version === 0 || !isText) {
          response.writeHead(answer.statusCode ?? 500, answer.headers);
          answer.pipe(response);
          return;
        }
        const { 'content-length': _length, etag: _etag, ...headers } = answer.headers;
        const parts: Buffer[] = [];
        answer.on('data', (part: Buffer) => parts.push(part));
        answer.on('end', () => {
          response.writeHead(answer.statusCode ?? 500, headers);
          response.end(renamed(Buffer.concat(parts).toString(), version));
        });
      },
    );
    asked.on('error', () => response.destroy());
    response.on('close', () => asked.destroy());
    const hash = ofName?.[1];
    if (hash && (givenAt.get(hash) ?? version) < version) {
      response.writeHead(404).end();
      return;
    }
    if (hash) givenAt.set(hash, version);
    request.pipe(asked);
  });
  await new Promise<void>((resolve) => void door.listen(port, '127.0.0.1', resolve));
  return {
    origin: `http://127.0.0.1:${port}`,
    update: () => {
      version++;
    },
    close: () =>
      new Promise((resolve) => {
        door.close(() => resolve());
        door.closeAllConnections();
      }),
  };
}
