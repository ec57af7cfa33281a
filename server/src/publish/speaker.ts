import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { SpeakTask, SpokenFile } from './speak.worker';

/** Makes sound files of texts somewhere that is not the request's thread. */
export interface Speaker {
  /** @param told how far it is, 0 to 1 */
  speak(
    task: Omit<SpeakTask, 'progress' | 'voices'>,
    told: (progress: number) => void,
    signal: AbortSignal,
  ): Promise<SpokenFile>;
  close(): Promise<void>;
}

/** A speaker over one worker thread: a queue of a hundred articles must not take a small server from its readers. */
export function threadSpeaker(workerFile: string, voices: string): Speaker {
  const pool = new Piscina({
    filename: workerFile,
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: 30_000,
    resourceLimits: { maxOldGenerationSizeMb: 1024, stackSizeMb: 8 },
  });
  return {
    async speak(task, told, signal) {
      const { port1, port2 } = new MessageChannel();
      port1.on('message', (progress: unknown) => {
        if (typeof progress === 'number') told(progress);
      });
      try {
        const made: unknown = await pool.run({ ...task, voices, progress: port2 }, { transferList: [port2], signal });
        return made as SpokenFile;
      } finally {
        port1.close();
      }
    },
    close: () => pool.destroy(),
  };
}
