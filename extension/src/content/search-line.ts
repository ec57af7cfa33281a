import { ask } from '../messages';
import { COLOURS, CONTROLS, element, ownRoot } from './own-root';

/** On a page that searches the web: one line with what the reader's own library has on it, or nothing. */
async function show(): Promise<void> {
  const found = await ask('foundFor', { address: location.href });
  if (!found) return;
  const { count, best } = found;
  const { host, root } = ownRoot('aside', 'From your library', STYLE);
  const line = element('p', { text: `Your library has ${count === 1 ? 'one item' : `${count} items`} on this: ` });
  best.forEach(({ title, source, link: address }, at) => {
    const link = element('a', { text: title });
    link.href = address;
    line.append(link, ` (${source})${at < best.length - 1 ? ', ' : ''}`);
  });
  root.append(line, element('button', { text: 'Hide', press: () => host.remove() }));
  document.body.prepend(host);
}

const STYLE = `:host{all:initial;display:flex;gap:12px;align-items:center;padding:6px 14px;background:var(--ground);color:var(--ink);border-bottom:1px solid var(--line);font:15px/1.45 system-ui,sans-serif}
${COLOURS}
p{margin:0;flex:1}
${CONTROLS}`;

void show();
