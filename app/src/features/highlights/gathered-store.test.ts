import { z } from 'zod';
import { readSetting } from '@/device/store/settings-storage';
import { useGathered } from './gathered-store';

const uuid = (n: number) => `019a0000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const kept = () => readSetting('gathered', z.array(z.string()), []);

it('keeps what is gathered in its order on this device, and none twice', () => {
  const { gather, move, drop, restore } = useGathered.getState();
  gather([uuid(1), uuid(2), uuid(3)]);
  gather([uuid(2), uuid(4)]);
  expect(useGathered.getState().ids).toEqual([1, 2, 3, 4].map(uuid));
  move(3, 0);
  expect(useGathered.getState().ids).toEqual([4, 1, 2, 3].map(uuid));
  move(0, 2);
  expect(kept()).toEqual([1, 2, 4, 3].map(uuid));
  const before = useGathered.getState().ids;
  drop([uuid(1), uuid(4)]);
  expect(kept()).toEqual([2, 3].map(uuid));
  restore(before);
  expect(kept()).toEqual([1, 2, 4, 3].map(uuid));
});
