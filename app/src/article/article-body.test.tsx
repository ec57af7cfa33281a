import { act } from 'react';
import { createRoot } from 'react-dom/client';
import { asElements } from './article-body';

const frame = document.createElement('div');
const root = createRoot(frame);
const draw = (properties: Record<string, string>) =>
  act(() =>
    root.render(
      asElements({ type: 'root', children: [{ type: 'element', tagName: 'img', properties, children: [] }] }),
    ),
  );

beforeAll(() => Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true }));
afterAll(() => act(() => root.unmount()));

it('says of a picture that the page did not give what it showed, and offers nothing', () => {
  draw({ alt: 'The quay' });
  expect(frame.textContent).toBe('A picture that did not come through: The quay');
  expect(frame.querySelector('button')).toBeNull();
});

it('says of a picture that cannot be had now that it is not here, and tries again when asked', () => {
  draw({ src: '/api/pictures/a.webp', alt: 'The quay' });
  act(() => void frame.querySelector('img')?.dispatchEvent(new Event('error')));
  expect(frame.textContent).toBe('A picture that is not here now: The quayTry again');
  act(() => frame.querySelector('button')?.click());
  expect(frame.querySelector('img')?.getAttribute('src')).toBe('/api/pictures/a.webp');
  expect(frame.textContent).toBe('');
});
