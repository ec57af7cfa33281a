/** On a page: lets the reader draw a rectangle over what they see. Its own layer, gone afterwards. */

/** A part of what is on screen, in CSS pixels of the window, and how many of the screen's there are to one. */
export interface Cut {
  x: number;
  y: number;
  width: number;
  height: number;
  scale: number;
}

/** What the background asks of this script. */
export interface ToCut {
  page: 'cut';
}

const SMALLEST = 8;
const STYLE = `:host{all:initial}
.veil{position:fixed;inset:0;z-index:2147483647;background:rgb(43 32 51/.35);cursor:crosshair;touch-action:none}
.part{position:absolute;background:rgb(255 253 249/.35);outline:2px solid #6E2F6B}
.says{position:absolute;left:50%;top:16px;transform:translateX(-50%);padding:10px 16px;border-radius:14px;background:#FFFDF9;color:#2B2033;font:16px/1.4 system-ui,sans-serif}
.veil:focus{outline:none}`;

function cutOut(): Promise<Cut | null> {
  const host = document.createElement('div');
  const root = host.attachShadow({ mode: 'closed' });
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(STYLE);
  root.adoptedStyleSheets = [sheet];
  const veil = document.createElement('div');
  veil.className = 'veil';
  veil.tabIndex = 0;
  veil.setAttribute('role', 'application');
  const says = document.createElement('p');
  says.className = 'says';
  says.textContent = 'Draw a rectangle. Enter takes all of it, Escape nothing.';
  veil.setAttribute('aria-label', says.textContent);
  const part = document.createElement('div');
  part.className = 'part';
  veil.append(says, part);
  root.append(veil);
  document.documentElement.append(host);
  veil.focus();
  return new Promise((resolve) => {
    const end = (cut: Omit<Cut, 'scale'> | null) => {
      host.remove();
      // The layer has to be off the screen before it is photographed.
      requestAnimationFrame(() => requestAnimationFrame(() => resolve(cut && { ...cut, scale: devicePixelRatio })));
    };
    let from: { x: number; y: number } | null = null;
    const drawn = (event: PointerEvent) => {
      const begin = from ?? { x: event.clientX, y: event.clientY };
      return {
        x: Math.min(begin.x, event.clientX),
        y: Math.min(begin.y, event.clientY),
        width: Math.abs(event.clientX - begin.x),
        height: Math.abs(event.clientY - begin.y),
      };
    };
    veil.addEventListener('pointerdown', (event) => {
      from = { x: event.clientX, y: event.clientY };
      veil.setPointerCapture(event.pointerId);
    });
    veil.addEventListener('pointermove', (event) => {
      if (!from) return;
      const { x, y, width, height } = drawn(event);
      part.style.cssText = `left:${x}px;top:${y}px;width:${width}px;height:${height}px`;
    });
    veil.addEventListener('pointerup', (event) => {
      const cut = drawn(event);
      from = null;
      if (cut.width >= SMALLEST && cut.height >= SMALLEST) end(cut);
    });
    veil.addEventListener('keydown', (event) => {
      if (event.key === 'Escape') end(null);
      if (event.key === 'Enter') end({ x: 0, y: 0, width: innerWidth, height: innerHeight });
    });
  });
}

// It may be put into a page a second time.
const page = globalThis as { dorvelCut?: true };
if (!page.dorvelCut) {
  page.dorvelCut = true;
  chrome.runtime.onMessage.addListener((message: { page?: string }, _sender, respond) => {
    if (message.page !== 'cut') return false;
    void cutOut().then(respond);
    return true;
  });
}
