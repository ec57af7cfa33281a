import { followInstall, installWay, useInstall } from './install';

// User agent strings as browsers send them; from memory.
const IPHONE =
  'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.0 Mobile/15E148 Safari/604.1';
const TABLET =
  'Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.0 Safari/605.1.15';
const ANDROID =
  'Mozilla/5.0 (Linux; Android 10; K) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/130.0.0.0 Mobile Safari/537.36';
const DESK = 'Mozilla/5.0 (X11; Linux x86_64; rv:131.0) Gecko/20100101 Firefox/131.0';

describe('installing Dorvel on a device', () => {
  it.each([
    [IPHONE, 5, 'share-sheet'],
    [TABLET, 5, 'share-sheet'],
    [TABLET, 0, 'address-bar'],
    [ANDROID, 5, 'menu'],
    [DESK, 0, 'address-bar'],
  ] as const)('knows the way of a browser that says “%s”', (agent, touch, way) => {
    expect(installWay(agent, touch)).toBe(way);
  });

  it('asks only when the browser offered it, once, and knows when it was done', async () => {
    globalThis.matchMedia = () => Object.assign(new EventTarget(), { matches: false }) as unknown as MediaQueryList;
    const end = followInstall();
    expect(useInstall.getState()).toEqual({ installed: false, ask: null });
    const prompt = jest.fn(() => Promise.resolve());
    const offer = Object.assign(new Event('beforeinstallprompt', { cancelable: true }), { prompt });
    dispatchEvent(offer);
    expect(offer.defaultPrevented).toBe(true);
    await useInstall.getState().ask?.();
    expect(prompt).toHaveBeenCalledTimes(1);
    expect(useInstall.getState().ask).toBeNull();
    dispatchEvent(new Event('appinstalled'));
    expect(useInstall.getState().installed).toBe(true);
    end();
  });
});
