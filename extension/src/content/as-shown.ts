/** What is taken from a page. */
export interface Shown {
  address: string;
  title: string;
  /** Empty when it is too large to be sent. */
  html: string;
}

/**
 * The page as the browser shows it at this moment, or the part of it that is selected. Runs inside the page, so it
 * stands by itself: nothing outside this function is there.
 *
 * Elements that scripts have built inside open shadow roots are written where they are shown (DOM, 4.2.2), for markup
 * alone would leave them out.
 */
export function pageAsShown(only: 'selection' | null): Shown {
  const most = 2_900_000;
  const markupOf = (node: Node): string => {
    const holder = document.createElement('div');
    holder.append(node);
    return holder.innerHTML;
  };
  const flat = (node: Node): Node => {
    const copy = node.cloneNode(false);
    const root = node instanceof Element ? node.shadowRoot : null;
    const assigned = node instanceof HTMLSlotElement ? node.assignedNodes() : [];
    for (const child of assigned.length > 0 ? assigned : (root ?? node).childNodes) copy.appendChild(flat(child));
    return copy;
  };
  const whole = (): string => {
    const hasShadows = Array.from(document.querySelectorAll('*')).some(({ shadowRoot }) => shadowRoot);
    const shown = document.documentElement.outerHTML;
    if (!hasShadows && shown.length <= most) return shown;
    const copy = flat(document.documentElement) as Element;
    // What makes a page large is seldom its text.
    if (shown.length > most)
      copy
        .querySelectorAll('script:not([type="application/ld+json"]), style, svg, template')
        .forEach((element) => element.remove());
    return copy.outerHTML;
  };
  const selected = (): string => {
    const selection = getSelection();
    let markup = '';
    for (let at = 0; selection && at < selection.rangeCount; at++)
      markup += markupOf(selection.getRangeAt(at).cloneContents());
    return markup;
  };
  const html = only === 'selection' ? selected() : whole();
  return { address: location.href, title: document.title, html: html.length <= most ? html : '' };
}
