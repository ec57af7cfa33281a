import { type ComponentProps, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { createPortal } from 'react-dom';

/** A table: one that is wider than the page scrolls in its frame, by keyboard too, and can be opened alone. */
export function TableFrame(props: ComponentProps<'table'>) {
  const frame = useRef<HTMLDivElement>(null);
  const [isWide, setWide] = useState(false);
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const element = frame.current;
    if (!element) return undefined;
    const resized = new ResizeObserver(() => setWide(element.scrollWidth > element.clientWidth + 1));
    resized.observe(element);
    return () => resized.disconnect();
  }, []);
  return (
    <>
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reachable by keyboard */}
      <div ref={frame} className="table-frame" role="group" aria-label="Table" tabIndex={0}>
        <table {...props} />
      </div>
      {isWide && (
        // Its words come from the style sheet: they are none of the text.
        <button type="button" className="table-alone" aria-label="Open the table alone" onClick={() => setOpen(true)} />
      )}
      {open && <TableAlone table={props} lookOf={frame} onClose={() => setOpen(false)} />}
    </>
  );
}

interface TableAloneProps {
  table: ComponentProps<'table'>;
  /** In the text: faces and sizes are as there. */
  lookOf: React.RefObject<HTMLElement | null>;
  onClose(): void;
}

/** The table on the whole screen, its heads in sight. Outside the text, in which each word has its place but once. */
function TableAlone({ table, lookOf, onClose }: TableAloneProps) {
  const dialog = useRef<HTMLDialogElement>(null);
  const article = lookOf.current?.closest<HTMLElement>('.article');
  // Before it leaves the page, so that the focus goes back to where it came from.
  useLayoutEffect(() => {
    const shown = dialog.current;
    shown?.showModal();
    return () => shown?.close();
  }, []);
  return createPortal(
    <dialog
      ref={dialog}
      className="table-view"
      aria-label="Table"
      onCancel={(event) => {
        event.preventDefault();
        onClose();
      }}
    >
      <button type="button" className="table-close" onClick={onClose}>
        Close
      </button>
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reachable by keyboard */}
      <div className="table-room" tabIndex={0} role="group" aria-label="The whole table">
        <div
          className="article"
          lang={article?.lang}
          dir={article?.dir}
          ref={(element) => {
            if (element && article) element.style.cssText = article.style.cssText;
          }}
        >
          <table {...table} />
        </div>
      </div>
    </dialog>,
    document.getElementById('root') ?? document.body,
  );
}
