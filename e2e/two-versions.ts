import http from 'node:http';

/** Dorvel as it is, and then another version of it, at one address. */
export interface TwoVersions {
  origin: string;
  /** From now on it is the other version: each file that is named by its content has another name, and those of before are gone. */
  update(): void;
  close(): Promise<void>;
}

const reversed = (hash: string) => Array.from(hash).reverse().join('');
/** Names by content, and what the service worker goes by for the others. */
const renamed = (text: string) =>
  text
    .replace(/(?<=-)[0-9a-f]{32}(?=\.(?:js|css))/g, reversed)
    .replace(/(?<=revision["']?:["'])[0-9a-f]{32}/g, reversed);

/** A door before a server. @param server its origin */
export async function openTwoVersions(server: string, port: number): Promise<TwoVersions> {
  let isOther = false;
  const door = http.createServer((request, response) => {
    const path = request.url ?? '/';
    const ofName = /-([0-9a-f]{32})\.(?:js|css)$/.exec(path);
    // What of the first version is kept says nothing of the other.
    const { 'if-none-match': _tag, 'if-modified-since': _since, ...headers } = request.headers;
    const asked = http.request(
      new URL(isOther ? renamed(path) : path, server),
      { method: request.method, headers: { ...headers, 'accept-encoding': 'identity' } },
      (answer) => {
        const isText = /html|javascript|css/.test(answer.headers['content-type'] ?? '');
        // What the browser keeps of itself is no help: it may throw it away whenever it wants the room.
        answer.headers['cache-control'] = 'no-store';
        if (!isOther || !isText) {
          response.writeHead(answer.statusCode ?? 500, answer.headers);
          answer.pipe(response);
          return;
        }
        const { 'content-length': _length, etag: _etag, ...headers } = answer.headers;
        const parts: Buffer[] = [];
        answer.on('data', (part: Buffer) => parts.push(part));
        answer.on('end', () => {
          response.writeHead(answer.statusCode ?? 500, headers);
          response.end(renamed(Buffer.concat(parts).toString()));
        });
      },
    );
    asked.on('error', () => response.destroy());
    response.on('close', () => asked.destroy());
    if (isOther && ofName && before.has(ofName[1] ?? '')) {
      response.writeHead(404).end();
      return;
    }
    if (!isOther && ofName) before.add(ofName[1] ?? '');
    request.pipe(asked);
  });
  const before = new Set<string>();
  await new Promise<void>((resolve) => void door.listen(port, '127.0.0.1', resolve));
  return {
    origin: `http://127.0.0.1:${port}`,
    update: () => (isOther = true),
    close: () =>
      new Promise((resolve) => {
        door.close(() => resolve());
        door.closeAllConnections();
      }),
  };
}
