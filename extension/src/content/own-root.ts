/** Set by the build: open where tests are to reach what is shown. */
declare const ROOTS_ARE_OPEN: boolean;

/**
 * An element of ours on somebody else's page, with a root of its own: neither the page's style nor ours reaches the other,
 * and the page's scripts cannot read what is shown there.
 *
 * @param name for those who hear the page
 */
export function ownRoot(
  tag: 'aside' | 'div',
  name: string | null,
  style: string,
): { host: HTMLElement; root: ShadowRoot } {
  const host = document.createElement(tag);
  if (name !== null) host.setAttribute('aria-label', name);
  const root = host.attachShadow({ mode: ROOTS_ARE_OPEN ? 'open' : 'closed' });
  // Made by script, it is not under the page's own policy for styles.
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(style);
  root.adoptedStyleSheets = [sheet];
  return { host, root };
}

/** An element with its text and what happens at a press, if anything. */
export function element<Tag extends keyof HTMLElementTagNameMap>(
  tag: Tag,
  { text, name, className, press }: { text?: string; name?: string; className?: string; press?: () => void } = {},
  ...children: Node[]
): HTMLElementTagNameMap[Tag] {
  const made = document.createElement(tag);
  if (text !== undefined) made.textContent = text;
  if (name !== undefined) made.setAttribute('aria-label', name);
  if (className !== undefined) made.className = className;
  if (press) made.addEventListener('click', press);
  made.append(...children);
  return made;
}

/** By day, and by night where the reader's browser is. */
export const COLOURS = `:host{--ground:#F7F4EE;--ink:#2B2033;--soft:#5E5268;--line:#CFC6B8;--accent:#6E2F6B}
@media(prefers-color-scheme:dark){:host{--ground:#18121D;--ink:#EEE6DA;--soft:#B9ADBF;--line:#43364C;--accent:#D7A0D6}}`;
export const CONTROLS = `a{color:var(--accent)}button{font:inherit;min-height:44px;min-width:44px;padding:0 12px;border:1px solid var(--soft);border-radius:12px;background:transparent;color:inherit;cursor:pointer}
:focus-visible{outline:3px solid var(--accent);outline-offset:2px}`;
