import { chooseAll } from '@/device/store/changes';
import { useSavingSettings } from './saving-settings-store';
import { keepWhere, whereItIs } from './where-saved';

jest.mock('@/device/store/changes', () => ({ chooseAll: jest.fn(() => Promise.resolve()) }));

/** A browser that says where it is, or that it may not. */
function browserAt(coords: { latitude: number; longitude: number; accuracy: number } | null): void {
  const getCurrentPosition = (tell: (at: object) => void, refuse: (why: object) => void) =>
    coords ? tell({ coords }) : refuse({ code: 1 });
  Object.defineProperty(navigator, 'geolocation', { value: { getCurrentPosition }, configurable: true });
}
const PLACE = { latitude: 58.981, longitude: -2.96, within: 21 };

describe('where something was saved', () => {
  beforeEach(() => {
    jest.mocked(chooseAll).mockClear();
    useSavingSettings.getState().change({ where: true });
  });

  it('is kept to some ten metres, and how well it is known', async () => {
    browserAt({ latitude: 58.98104321, longitude: -2.95999999, accuracy: 20.6 });
    expect(await whereItIs()).toEqual(PLACE);
    await keepWhere(['a', 'b']);
    expect(chooseAll).toHaveBeenCalledWith([
      { itemId: 'a', set: { place: PLACE } },
      { itemId: 'b', set: { place: PLACE } },
    ]);
  });

  it('is not asked for until the reader wants it, nor kept when the browser does not tell', async () => {
    browserAt(null);
    expect(await whereItIs()).toBeNull();
    await keepWhere(['a']);
    browserAt({ latitude: 1, longitude: 1, accuracy: 1 });
    useSavingSettings.getState().change({ where: false });
    await keepWhere(['a']);
    expect(chooseAll).not.toHaveBeenCalled();
  });
});
