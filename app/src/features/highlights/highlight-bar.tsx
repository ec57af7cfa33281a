import { HighlightKind } from '@dorvel/core/model';
import { HIGHLIGHT_KIND_WORDS } from '@dorvel/core/wording';

interface MarkBarProps {
  onMark(kind: HighlightKind): void;
  /** Marks it, to be noted on. */
  onNote(): void;
  onCopy(): void;
  onCard(): void;
  onShare(): void;
}

/** What can be done with the words that are selected: marked for a purpose, or taken elsewhere. */
export function HighlightBar({ onMark, onNote, onCopy, onCard, onShare }: MarkBarProps) {
  return (
    <div
      className="mark-bar"
      role="toolbar"
      aria-label="Mark what is selected"
      // A press here must not take the selection away before it is used.
      onPointerDown={(event) => event.preventDefault()}
      onMouseDown={(event) => event.preventDefault()}
    >
      {HighlightKind.options.map((kind) => (
        <button key={kind} type="button" onClick={() => onMark(kind)}>
          <span className={`mark-sample mark-${kind}`}>{HIGHLIGHT_KIND_WORDS[kind]}</span>
        </button>
      ))}
      <span className="mark-bar-others">
        <button type="button" onClick={onNote}>
          Note
        </button>
        <button type="button" onClick={onCopy}>
          Copy
        </button>
        <button type="button" onClick={onCard}>
          Card
        </button>
        <button type="button" onClick={onShare}>
          Share
        </button>
      </span>
    </div>
  );
}
