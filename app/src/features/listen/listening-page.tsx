import { useState } from 'react';
import { Button } from '@/ui/button';
import { Page } from '@/ui/page';
import { Pronunciations } from './pronunciations';
import { SpeedChoice } from './speed-choice';
import { VoicesOnDevice } from './voices-on-device';
import { WhatIsSaid } from './what-is-said';

/** How the reader is read to on this device, and which voices are on it. */
export function ListeningPage() {
  const [wordsShown, setWordsShown] = useState(false);
  return (
    <Page title="Voices and speed" aside="on this device">
      <SpeedChoice />
      <VoicesOnDevice />
      <WhatIsSaid />
      <Button label="How words are said" onPress={() => setWordsShown(true)} />
      {wordsShown && <Pronunciations onClose={() => setWordsShown(false)} />}
    </Page>
  );
}
