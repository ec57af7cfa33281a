import { ask, type LiveEcho } from '../messages';
import { COLOURS, CONTROLS, element, ownRoot } from './own-root';

interface Placed {
  echo: LiveEcho;
  range: Range;
}

/**
 * What of echoes is shown over a page: a line below each, their count with the way to the next and the one before, and what
 * the library says of the one that is pressed. It lies in a root that the page cannot look into, and is there even where there
 * are no echoes: a page that is made to try words out on its readers learns nothing.
 */
export class EchoLayer {
  readonly #lines = element('div');
  readonly #bar = element('div', { className: 'bar' });
  readonly #card = element('section', { className: 'card' });
  readonly #host: HTMLElement;
  #echoes: readonly Placed[];
  #at = -1;
  #isDrawing = false;

  constructor(echoes: readonly Placed[]) {
    this.#echoes = echoes;
    const { host, root } = ownRoot('aside', 'Echoes of your library', STYLE);
    this.#host = host;
    this.#card.tabIndex = -1;
    root.append(this.#lines, this.#bar, this.#card);
  }

  show(): void {
    document.documentElement.append(this.#host);
    this.#changed();
    new ResizeObserver(() => this.#drawSoon()).observe(document.body);
    addEventListener('resize', () => this.#drawSoon());
    // Of anything that scrolls inside the page too.
    addEventListener('scroll', () => this.#drawSoon(), { capture: true, passive: true });
    addEventListener('click', (event) => this.#press(event), { capture: true });
    this.#host.addEventListener('keydown', (event) => {
      if (event.key === 'Escape') this.#close();
      // Keys that are meant for us are none of the page's.
      event.stopPropagation();
    });
  }

  #changed(): void {
    this.#card.hidden = true;
    const count = this.#echoes.length;
    this.#bar.replaceChildren();
    if (count > 0)
      this.#bar.append(
        element('span', { text: count === 1 ? 'One echo' : `${count} echoes` }),
        element('button', { text: '↑', name: 'The echo before', press: () => this.#step(-1) }),
        element('button', { text: '↓', name: 'The next echo', press: () => this.#step(1) }),
        element('button', { text: 'Hide', name: 'Hide the echoes', press: () => this.#hide() }),
      );
    this.#drawSoon();
  }

  #drawSoon(): void {
    if (this.#isDrawing) return;
    this.#isDrawing = true;
    requestAnimationFrame(() => {
      this.#isDrawing = false;
      this.#draw();
    });
  }

  /** Lines below the words, where these stand now. */
  #draw(): void {
    const lines = this.#echoes.flatMap(({ range }, at) => {
      const colour = getComputedStyle(range.startContainer.parentElement ?? document.body).color;
      return [...range.getClientRects()].map(({ left, bottom, width }) => {
        const line = element('div', { className: at === this.#at ? 'line now' : 'line' });
        // The page's own ink: whatever its ground is, it can be seen on it.
        line.style.cssText = `left:${left + scrollX}px;top:${bottom + scrollY}px;width:${width}px;border-color:${colour}`;
        return line;
      });
    });
    this.#lines.replaceChildren(...lines);
  }

  #press(event: MouseEvent): void {
    if (event.target === this.#host || getSelection()?.isCollapsed === false) return;
    const target = event.target instanceof Element ? event.target : null;
    if (target?.closest('a, button, input, select, textarea, [role="button"], [contenteditable]')) return;
    const { clientX: x, clientY: y } = event;
    const found = this.#echoes.findIndex(({ range }) =>
      [...range.getClientRects()].some(
        (rect) => rect.left <= x && x <= rect.right && rect.top <= y && y <= rect.bottom,
      ),
    );
    if (found === -1) this.#close();
    else this.#open(found);
  }

  #step(by: 1 | -1): void {
    const count = this.#echoes.length;
    const to = this.#at === -1 && by === -1 ? count - 1 : (this.#at + by + count) % count;
    const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
    this.#echoes[to]?.range.startContainer.parentElement?.scrollIntoView({
      block: 'center',
      behavior: still ? 'auto' : 'smooth',
    });
    this.#open(to);
  }

  #open(at: number): void {
    const echo = this.#echoes[at]?.echo;
    if (!echo) return;
    this.#at = at;
    const { form, items, more } = echo;
    const count = this.#echoes.length;
    this.#card.setAttribute('aria-label', `“${form}” in your library`);
    this.#card.replaceChildren(
      element('h2', { text: `“${form}” in your library` }),
      element('p', { className: 'soft', text: `Echo ${at + 1} of ${count} on this page` }),
      element('ul', {}, ...items.map(itemOf)),
    );
    if (more > 0)
      this.#card.append(element('p', { className: 'soft', text: `${more} more of your items speak of it.` }));
    this.#card.append(
      element(
        'div',
        { className: 'row' },
        element('button', { text: 'Not this word', press: () => this.#silence(echo) }),
        element('button', { text: 'Not on this site', press: () => this.#leaveOut() }),
        element('button', { text: 'Close', press: () => this.#close() }),
      ),
    );
    this.#card.hidden = false;
    this.#card.focus({ preventScroll: true });
    this.#drawSoon();
  }

  #close(): void {
    if (this.#card.hidden) return;
    this.#card.hidden = true;
    this.#at = -1;
    this.#drawSoon();
  }

  #hide(): void {
    this.#echoes = [];
    this.#changed();
  }

  #silence({ key, form }: LiveEcho): void {
    const what = { kind: 'term', key, form } as const;
    void ask('silenceEcho', { what, silenced: true });
    const before = this.#echoes;
    this.#echoes = before.filter(({ echo }) => echo.key !== key);
    this.#say(`“${form}” is silenced, here and on your devices. Dorvel, under You, lists what is silenced.`, () => {
      void ask('silenceEcho', { what, silenced: false });
      this.#echoes = before;
    });
  }

  #leaveOut(): void {
    void ask('leaveOutSite', { host: location.hostname });
    this.#echoes = [];
    this.#say('No more echoes on this site. The extension’s settings list the sites that are left out.', null);
  }

  /** Says what was done, in the place of what was shown. */
  #say(words: string, undo: (() => void) | null): void {
    this.#at = -1;
    this.#changed();
    const status = element('p', { text: words });
    status.setAttribute('role', 'status');
    this.#card.setAttribute('aria-label', 'Done');
    this.#card.replaceChildren(status);
    const row = element('div', { className: 'row' });
    const done = () => {
      undo?.();
      this.#changed();
    };
    if (undo) row.append(element('button', { text: 'Undo', press: done }));
    row.append(element('button', { text: 'Close', press: () => this.#close() }));
    this.#card.append(row);
    this.#card.hidden = false;
    this.#card.focus({ preventScroll: true });
  }
}

function itemOf({ title, source, minutes, passage, link }: LiveEcho['items'][number]): HTMLElement {
  const anchor = element('a', { text: title });
  anchor.href = link;
  anchor.target = '_blank';
  // The library is not told from where it is opened.
  anchor.rel = 'noreferrer';
  return element(
    'li',
    {},
    anchor,
    element('p', { className: 'soft', text: `${source} · ${Math.max(1, Math.round(minutes))} min` }),
    element('blockquote', { text: passage }),
  );
}

const STYLE = `:host{all:initial;position:absolute;top:0;left:0;width:0;height:0;font:15px/1.45 system-ui,sans-serif}
${COLOURS}
[hidden]{display:none!important}
.line{position:absolute;z-index:2147483645;height:0;margin-top:-1px;border-bottom:2px dotted;opacity:.7;pointer-events:none}
.line.now{border-bottom-style:solid;opacity:1}
.bar,.card{position:fixed;z-index:2147483646;right:16px;background:var(--ground);color:var(--ink);border:1px solid var(--line);border-radius:14px;box-shadow:0 2px 12px rgb(0 0 0/.18)}
.bar{bottom:16px;display:flex;align-items:center;gap:8px;padding:6px 6px 6px 14px}
.bar:empty{display:none}
.card{bottom:84px;width:min(360px,calc(100vw - 32px));max-height:60vh;overflow:auto;box-sizing:border-box;padding:14px 16px}
.card:focus{outline:none}
h2{margin:0;font-size:17px}p{margin:2px 0}ul{margin:10px 0;padding:0;list-style:none}li{padding:8px 0;border-top:1px solid var(--line)}
blockquote{margin:4px 0 0;padding-left:10px;border-left:2px solid var(--line)}
.soft{color:var(--soft);font-size:13px}.row{display:flex;flex-wrap:wrap;gap:8px;margin-top:8px}
${CONTROLS}
li a{display:flex;align-items:center;min-height:44px;font-weight:600}`;
