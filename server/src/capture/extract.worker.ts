import { articleFrom, type Input, type Taken } from './inputs';

/** Runs in a thread of the pool, so that a heavy page never blocks a request. */
export default function extract(input: Input): Promise<Taken> {
  return articleFrom(input);
}
