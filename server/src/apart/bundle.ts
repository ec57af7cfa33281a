import { mkdir, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { build, stop } from 'esbuild';

/** The processes of the workshops, as files that Node runs as they are. */
export interface Entries {
  texts: string;
  pictures: string;
}

const SOURCES = ['texts.child.ts', 'pictures.child.ts', 'guard.mjs'];

/**
 * Makes one file each of what the workshops' processes run. Started from TypeScript they would take twice the memory and
 * twice the time to begin, each time that one is killed.
 *
 * @param folder of the sources; what is made goes into `target`, from where Node must find the same packages
 */
export async function bundleChildren(folder: string, target: string): Promise<Entries> {
  const made = `${target}.${process.pid}`;
  await mkdir(made, { recursive: true });
  await build({
    entryPoints: SOURCES.map((name) => path.join(folder, name)),
    outdir: made,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    // What brings files of its own, or is written for `require`.
    external: ['pdfjs-dist', 'sharp', 'mailparser', 'html-encoding-sniffer', 'whatwg-encoding'],
    logLevel: 'error',
  });
  // The bundler is a process of its own, and would stay.
  await stop();
  const entries = ['guard.mjs', 'texts.child.mjs', 'pictures.child.mjs'];
  await mkdir(target, { recursive: true });
  // Renamed into place, as another server of this folder may be starting too.
  for (const name of entries) await rename(path.join(made, name), path.join(target, name));
  await rm(made, { recursive: true });
  return { texts: path.join(target, 'texts.child.mjs'), pictures: path.join(target, 'pictures.child.mjs') };
}
