import { ask } from '../messages';

/** On a page that searches the web: one line with what the reader's own library has on it, or nothing. */
async function show(): Promise<void> {
  const found = await ask('foundFor', { address: location.href });
  if (!found) return;
  const { count, best } = found;
  const host = document.createElement('aside');
  host.setAttribute('aria-label', 'From your library');
  // A root of its own: neither the page's style nor ours reaches the other.
  const root = host.attachShadow({ mode: 'closed' });
  // Made by script, it is not under the page's own policy for styles.
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(STYLE);
  root.adoptedStyleSheets = [sheet];
  const line = document.createElement('p');
  line.append(`Your library has ${count === 1 ? 'one item' : `${count} items`} on this: `);
  best.forEach(({ title, source, link: address }, at) => {
    const link = document.createElement('a');
    link.href = address;
    link.textContent = title;
    line.append(link, ` (${source})${at < best.length - 1 ? ', ' : ''}`);
  });
  const close = document.createElement('button');
  close.textContent = 'Hide';
  close.addEventListener('click', () => host.remove());
  root.append(line, close);
  document.body.prepend(host);
}

const STYLE = `:host{all:initial;display:flex;gap:12px;align-items:center;padding:6px 14px;background:#F7F4EE;color:#2B2033;border-bottom:1px solid #CFC6B8;font:15px/1.45 system-ui,sans-serif}
p{margin:0;flex:1}a{color:#6E2F6B}button{font:inherit;min-height:44px;min-width:44px;padding:0 12px;border:1px solid #5E5268;border-radius:12px;background:transparent;color:inherit}
:focus-visible{outline:3px solid #6E2F6B;outline-offset:2px}
@media(prefers-color-scheme:dark){:host{background:#18121D;color:#EEE6DA;border-color:#43364C}a{color:#D7A0D6}button{border-color:#B9ADBF}}`;

void show();
