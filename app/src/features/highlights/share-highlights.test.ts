import { newItem } from '@dorvel/core/records';
import { quotationOf, sharePassage } from './share-highlights';

Object.assign(URL, { canParse: (address: string) => /^https?:/.test(address) });

const item = newItem({
  type: 'save',
  id: '019a0000-0000-7000-8000-000000000001',
  itemId: '019a0000-0000-7000-8000-000000000001',
  address: 'https://ferry.example/winter',
  savedAt: 1,
  stamp: '000000001-0000-a',
});
item.choices.title = { value: 'The winter the ferry stood still', at: '000000001-0000-a' };

const QUOTATION =
  '“It carried two goats.”\n\nThe winter the ferry stood still, ferry.example\nhttps://ferry.example/winter';

it('a passage is handed on with what it is from', () => {
  expect(quotationOf(' It carried two goats. ', item)).toBe(QUOTATION);
});

describe('sharing', () => {
  const device = globalThis.navigator as unknown as Record<string, unknown>;
  const writeText = jest.fn(() => Promise.resolve());
  beforeEach(() => {
    writeText.mockClear();
    Object.defineProperty(device, 'clipboard', { value: { writeText }, configurable: true });
  });
  afterEach(() => {
    delete device.share;
    delete device.canShare;
  });

  it('goes by what the device has for it', async () => {
    const share = jest.fn(() => Promise.resolve());
    Object.assign(device, { share, canShare: () => true });
    await sharePassage('It carried two goats.', item);
    expect(share).toHaveBeenCalledWith({ text: QUOTATION });
    expect(writeText).not.toHaveBeenCalled();
  });

  it('copies it where there is nothing, and says nothing when the reader thinks better of it', async () => {
    await sharePassage('It carried two goats.', item);
    expect(writeText).toHaveBeenCalledWith(QUOTATION);
    Object.assign(device, {
      share: () => Promise.reject(new DOMException('', 'AbortError')),
      canShare: () => true,
    });
    await expect(sharePassage('x', item)).resolves.toBeUndefined();
    Object.assign(device, { share: () => Promise.reject(new DOMException('', 'NotAllowedError')) });
    await expect(sharePassage('x', item)).rejects.toThrow();
  });
});
