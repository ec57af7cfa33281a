import type { Spans } from '@dorvel/core/model';
import { looseEndPath, strandLength, strandParts } from '@dorvel/core/strand';

interface StrandProps {
  minutes: number;
  /** The furthest fraction passed. */
  passed: number;
  /** The parts that went by ear: drawn as beads, where what went by eye is a solid line. */
  heard?: Spans;
  /** Where the reader stopped: the loose end. Null when they have not begun. */
  looseEnd: number | null;
  /** The text equivalent, such as "12 min, 7 left". */
  label: string;
  /** Room there is along the strand, in points. */
  room: number;
  /** A row's strand lies and is as long as its minutes; the rail hangs and takes all the room. */
  hanging?: boolean;
  /** Where highlights are, as fractions: the knots. */
  knots?: readonly number[];
  /** In the plan of a slot a strand takes all its room too: the slot is the scale. What was begun is the darker. */
  filling?: boolean;
  /** It takes no more room than it is long: what stands beside it begins at its end. */
  trimmed?: boolean;
}

const ACROSS = 22;
const AXIS = ACROSS / 2;
const INSET = 3;
const NOTHING_HEARD: Spans = [];
const NO_KNOTS: readonly number[] = [];

/** The picture of an item's length and progress: how long, how far, where did I stop. */
export function Strand({
  minutes,
  passed,
  heard = NOTHING_HEARD,
  looseEnd,
  label,
  room,
  knots = NO_KNOTS,
  hanging = false,
  filling = false,
  trimmed = false,
}: StrandProps) {
  const length = (hanging || filling ? 1 : strandLength(minutes)) * (room - 2 * INSET);
  const at = (fraction: number) => INSET + length * fraction;
  const taken = trimmed ? Math.ceil(length + 2 * INSET) : room;
  const point = (along: number, across: number) => (hanging ? { x: across, y: along } : { x: along, y: across });
  const segment = (from: number, to: number) => {
    const a = point(from, AXIS);
    const b = point(to, AXIS);
    return { x1: a.x, y1: a.y, x2: b.x, y2: b.y };
  };
  const end = { a: point(at(1), AXIS - 5), b: point(at(1), AXIS + 5) };
  return (
    <div
      className="strand"
      role="img"
      aria-label={label}
      style={hanging ? { width: ACROSS, height: room } : { width: taken, height: ACROSS }}
    >
      <svg width={hanging ? ACROSS : taken} height={hanging ? room : ACROSS} aria-hidden>
        <line
          // Where nothing is passed it begins where a passed part's round end does, in line with the words above it.
          {...segment(at(0) - (filling ? 0 : INSET), at(1))}
          stroke={filling ? 'var(--accent)' : 'var(--soft)'}
          strokeWidth={filling ? 7 : 1.75}
          strokeLinecap={filling ? 'round' : 'butt'}
          opacity={filling && looseEnd === null ? 0.55 : 1}
        />
        {!filling && (
          <line x1={end.a.x} y1={end.a.y} x2={end.b.x} y2={end.b.y} stroke="var(--soft)" strokeWidth={1.5} />
        )}
        {strandParts(passed, heard).map(({ from, to, by }) => (
          <line
            key={from}
            {...segment(at(from), Math.max(at(to), at(from) + 2))}
            stroke="var(--accent)"
            strokeWidth={by === 'eyes' ? 6 : 5.5}
            strokeLinecap="round"
            // No dash but its round caps: a row of beads.
            {...(by === 'ears' ? { strokeDasharray: '0.1 8' } : {})}
          />
        ))}
        {knots.map((knot) => {
          const { x, y } = point(at(knot), AXIS);
          return <circle key={knot} cx={x} cy={y} r={4} fill="var(--ochre)" stroke="var(--ground)" strokeWidth={1.5} />;
        })}
        {looseEnd !== null && looseEnd < 1 && !filling && (
          <path
            d={looseEndPath(at(looseEnd), AXIS, point)}
            fill="none"
            stroke="var(--accent)"
            strokeWidth={2.5}
            strokeLinecap="round"
          />
        )}
      </svg>
    </div>
  );
}
