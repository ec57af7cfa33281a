import { Redirect } from 'expo-router';

/** As this screen's address was before: bookmarks and installed shortcuts lead on. */
export default function Recall() {
  return <Redirect href="/from-memory" />;
}
