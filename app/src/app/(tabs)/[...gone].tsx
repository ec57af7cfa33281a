import { Redirect, useLocalSearchParams } from 'expo-router';

/** Addresses of before, in bookmarks, letters and installed shortcuts. */
const MOVED: Readonly<Record<string, `/${string}`>> = {
  recall: '/from-memory',
  account: '/you/account',
  archive: '/you/archive',
  elsewhere: '/you/elsewhere',
  podcast: '/you/podcast',
  reminders: '/you/reminders',
};

/** Where nothing stands: the way on, to what was there before or to Now. */
export default function Gone() {
  const { gone } = useLocalSearchParams<{ gone: string[] }>();
  return <Redirect href={MOVED[gone.join('/')] ?? '/now'} />;
}
