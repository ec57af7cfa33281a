import type { CDPSession } from '@playwright/test';

const STEPS = 12;

/** Fingers, by the browser's own input: what only a stroke does cannot be clicked. */
export class Finger {
  constructor(private readonly session: CDPSession) {}

  async down(x: number, y: number): Promise<void> {
    await this.#send('touchStart', [{ x, y }]);
  }

  async up(): Promise<void> {
    await this.#send('touchEnd', []);
  }

  /** Two fingers drawn apart along a level line, or together, from their middle. @param by how many times as far apart at the end */
  async pinch([x, y]: readonly [x: number, y: number], apart: number, by: number): Promise<void> {
    const at = (between: number) => [
      { x: x - between / 2, y, id: 0 },
      { x: x + between / 2, y, id: 1 },
    ];
    await this.#send('touchStart', at(apart));
    for (let step = 1; step <= STEPS; step++)
      await this.#send('touchMove', at(apart * (1 + ((by - 1) * step) / STEPS)));
    await this.up();
  }

  /** In steps, as a finger goes. */
  async stroke(from: readonly [x: number, y: number], to: readonly [x: number, y: number]): Promise<void> {
    await this.down(...from);
    for (let step = 1; step <= STEPS; step++)
      await this.#send('touchMove', [
        { x: from[0] + ((to[0] - from[0]) * step) / STEPS, y: from[1] + ((to[1] - from[1]) * step) / STEPS },
      ]);
  }

  #send(type: 'touchStart' | 'touchMove' | 'touchEnd', touchPoints: { x: number; y: number; id?: number }[]) {
    return this.session.send('Input.dispatchTouchEvent', { type, touchPoints });
  }
}
