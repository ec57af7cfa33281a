import { EventEmitter } from 'node:events';

/** Tells the devices of an account that there is something to pull, and those of a session that it has ended. */
export class ChangeBell {
  readonly #emitter = new EventEmitter().setMaxListeners(0);

  /** @param whose an account's id, or a session's when that has ended */
  ring(whose: string): void {
    this.#emitter.emit(whose);
  }

  /** Whose changes are listened to, accounts and sessions. */
  heard(): string[] {
    return this.#emitter.eventNames().map(String);
  }

  /** @returns a function that ends the listening */
  listen(whose: string, heard: () => void): () => void {
    this.#emitter.on(whose, heard);
    return () => this.#emitter.off(whose, heard);
  }
}
