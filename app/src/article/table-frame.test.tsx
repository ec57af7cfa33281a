import { act } from 'react';
import { createRoot } from 'react-dom/client';
import { TableFrame } from './table-frame';

const frame = document.createElement('div');
frame.className = 'article';
frame.lang = 'de';
frame.style.setProperty('--reading-size', '19px');
const root = createRoot(frame);
let looks: (() => void)[] = [];
const ROWS = (
  <tbody>
    <tr>
      <td>M₂</td>
    </tr>
  </tbody>
);

/** Draws the table in a frame of this width, with a table of that. */
function draw(width: number, ofTable: number): void {
  act(() => root.render(<TableFrame>{ROWS}</TableFrame>));
  const element = frame.querySelector('.table-frame');
  Object.defineProperties(element, {
    clientWidth: { value: width, configurable: true },
    scrollWidth: { value: ofTable, configurable: true },
  });
  act(() => looks.forEach((look) => look()));
}
const opener = () => frame.querySelector<HTMLButtonElement>('[aria-label="Open the table alone"]');
const alone = () => document.body.querySelector('dialog');

beforeAll(() => {
  Object.assign(globalThis, {
    IS_REACT_ACT_ENVIRONMENT: true,
    ResizeObserver: class {
      constructor(look: () => void) {
        looks.push(look);
      }
      observe() {}
      disconnect() {
        looks = [];
      }
    },
  });
  // The test's browser has no dialogs.
  Object.assign(HTMLDialogElement.prototype, { showModal: jest.fn(), close: jest.fn() });
  document.body.append(frame);
});
afterAll(() => act(() => root.unmount()));

it('is only opened alone where it is wider than the page', () => {
  draw(300, 300);
  expect(opener()).toBeNull();
  draw(300, 420);
  expect(opener()?.textContent).toBe('');
});

it('stands alone as it looks in the text, outside of it, and goes again', () => {
  draw(300, 420);
  act(() => opener()?.click());
  expect(alone()?.querySelector('td')?.textContent).toBe('M₂');
  expect(frame.contains(alone())).toBe(false);
  const look = alone()?.querySelector<HTMLElement>('.article');
  expect(look?.lang).toBe('de');
  expect(look?.style.getPropertyValue('--reading-size')).toBe('19px');
  act(() => alone()?.querySelector('button')?.click());
  expect(alone()).toBeNull();
});
