import type { Item } from '@dorvel/core/model';
import { goOnFrom, passedOf } from '@dorvel/core/reading';
import { looseEndPath, strandLength, strandParts } from '@dorvel/core/strand';
import { lengthInWords } from '@dorvel/core/wording';

const ROOM = 220;
const ACROSS = 22;
const AXIS = ACROSS / 2;
const INSET = 3;

/** How long an item is, how far it is read, and where the reader stopped. */
export function Strand({ item }: { item: Item }) {
  const length = strandLength(item.capture.page?.minutes ?? 0) * (ROOM - 2 * INSET);
  const at = (fraction: number) => INSET + length * fraction;
  const lying = (along: number, across: number) => ({ x: along, y: across });
  const stopped = item.progress.position ? goOnFrom(item) : null;
  return (
    <svg
      role="img"
      aria-label={lengthInWords(item)}
      width={ROOM}
      height={ACROSS}
      strokeLinecap="round"
      stroke="var(--accent)"
      fill="none"
    >
      <path d={`M${at(0)} ${AXIS}H${at(1)}M${at(1)} ${AXIS - 5}v10`} stroke="var(--soft)" strokeWidth={1.75} />
      {strandParts(passedOf(item), item.progress.heard).map(({ from, to, by }) => (
        <path
          key={from}
          d={`M${at(from)} ${AXIS}H${Math.max(at(to), at(from) + 2)}`}
          strokeWidth={by === 'eyes' ? 6 : 5.5}
          strokeDasharray={by === 'ears' ? '0.1 8' : undefined}
        />
      ))}
      {stopped !== null && stopped < 1 && <path d={looseEndPath(at(stopped), AXIS, lying)} strokeWidth={2.5} />}
    </svg>
  );
}
