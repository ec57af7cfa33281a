import { View } from 'react-native';
import { Page } from '@/ui/page';
import { ReadingControls } from './reading-controls';
import { readingStyle, useReadingSettings } from './reading-settings-store';

const SAMPLE =
  'By the third summer the divers had stopped counting shoots and begun to count sounds. A meadow in health is loud: shrimp crackle in it like frying fat, wrasse grunt at one another, and the blades themselves tick as they let go of oxygen at noon.';

/** How text looks on this device, tried on a sample. */
export function TextSettings() {
  const settings = useReadingSettings();
  return (
    <Page title="How the text looks" aside="on this device">
      <View role="region" aria-label="Sample" className="rounded-[16px] border border-line bg-raised p-[18px]">
        <div className="article" style={readingStyle(settings)}>
          <p>{SAMPLE}</p>
        </div>
      </View>
      <ReadingControls />
    </Page>
  );
}
