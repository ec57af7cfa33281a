import { ServerProblem, Unreachable } from '@dorvel/core/client';
import { type ArchiveLook, ArchiveStep, Problem } from '@dorvel/core/model';

/** How far an archive is on its way to the server, or has been gone through there: 0 to 1. */
export interface ArchiveProgress {
  stage: 'sending' | 'going-through';
  fraction: number;
}

interface Going {
  onProgress(progress: ArchiveProgress): void;
  /** Ends it. */
  signal: AbortSignal;
}

/** Sends an archive, and hears what it has. @throws ServerProblem, Unreachable; AbortError when it was ended */
export const sendArchive = (file: Blob, going: Going): Promise<ArchiveLook> => goThrough('PUT', file, going);

/** Brings in the archive that was sent last. @throws likewise */
export const bringInArchive = (going: Going): Promise<ArchiveLook> => goThrough('POST', null, going);

/** XMLHttpRequest, since fetch does not tell how much has been sent. */
function goThrough(method: 'PUT' | 'POST', body: Blob | null, { onProgress, signal }: Going): Promise<ArchiveLook> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open(method, '/api/archive/in');
    request.setRequestHeader('content-type', body ? 'application/zip' : 'application/json');
    request.upload.onprogress = ({ loaded, total }) =>
      onProgress({ stage: 'sending', fraction: loaded / (total || 1) });
    request.upload.onload = () => onProgress({ stage: 'going-through', fraction: 0 });
    request.onprogress = () => {
      const last = stepsIn(request.responseText).at(-1);
      if (last && 'passed' in last) onProgress({ stage: 'going-through', fraction: last.passed / (last.of || 1) });
    };
    request.onload = () => {
      const problem = request.status < 400 ? null : Problem.safeParse(jsonIn(request.responseText)).data;
      const last = stepsIn(request.responseText).at(-1);
      if (problem) reject(new ServerProblem(request.status, problem.detail));
      else if (last && 'look' in last) resolve(last.look);
      else if (last && 'says' in last) reject(new ServerProblem(500, last.says));
      else reject(new Unreachable('Something else answered in the server’s place.', request.status));
    };
    request.onerror = () => reject(new Unreachable('The connection to the server broke off.'));
    request.onabort = () => reject(new DOMException('Ended.', 'AbortError'));
    signal.addEventListener('abort', () => request.abort(), { once: true });
    request.send(body);
  });
}

/** The lines that are whole. */
function stepsIn(text: string): ArchiveStep[] {
  return text
    .slice(0, text.lastIndexOf('\n') + 1)
    .split('\n')
    .flatMap((line) => ArchiveStep.safeParse(jsonIn(line)).data ?? []);
}

function jsonIn(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    // Not the server's own words: whoever asked says so.
    return null;
  }
}
