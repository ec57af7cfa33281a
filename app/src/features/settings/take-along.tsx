import { Text, View } from 'react-native';
import { useWaitingCount } from '@/device/store/library';
import { useSync } from '@/device/sync/sync-loop';
import { SectionHeading } from '@/ui/section-heading';

/** All of the library as one file, which the browser downloads as it downloads any: with its progress, and its way to stop. */
export function TakeAlong() {
  const waiting = useWaitingCount();
  const online = useSync((state) => state.online);
  return (
    <View role="region" aria-label="Your library as a file" className="items-start gap-[8px]">
      <SectionHeading>Your library as a file</SectionHeading>
      <Text className="font-ui text-base text-ink">
        Everything, in open formats: texts as Markdown and as pages, pictures, bookmarks, feeds, what you marked and
        wrote, and all records. What is what stands in a README inside; it can be read without Dorvel.
      </Text>
      {waiting > 0 && (
        <Text className="font-ui text-small text-soft">What has not been sent to your server yet is not in it.</Text>
      )}
      {online ? (
        <a className="link-button" href="/api/archive" download>
          Take everything along
        </a>
      ) : (
        <Text className="font-ui text-small text-soft">It is made on your server: this needs a connection.</Text>
      )}
    </View>
  );
}
