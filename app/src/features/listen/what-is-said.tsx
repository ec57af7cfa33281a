import { Choice } from '@/ui/choice';
import { Setting, Switch } from '@/ui/setting';
import { useListeningSettings } from './listening-settings-store';

/** What is said of what is no running text, and what a headset's button does. */
export function WhatIsSaid() {
  const settings = useListeningSettings();
  return (
    <>
      <Setting label="What is said">
        <Switch
          label="Say “Heading” before one"
          on={settings.headings}
          onChange={(headings) => settings.change({ headings })}
        />
        <Switch
          label="Read footnotes at the end"
          on={settings.footnotes}
          onChange={(footnotes) => settings.change({ footnotes })}
        />
      </Setting>
      <Setting label="Tables">
        <Choice
          name="Tables"
          value={settings.tables}
          onChange={(tables) => settings.change({ tables })}
          options={[
            { value: 'summary', label: 'A summary' },
            { value: 'rows', label: 'Row by row' },
            { value: 'nothing', label: 'Left out' },
          ]}
        />
      </Setting>
      <Setting label="“Previous” on a headset or the lock screen">
        <Choice
          name="“Previous” on a headset or the lock screen"
          value={settings.previousDoes}
          onChange={(previousDoes) => settings.change({ previousDoes })}
          options={[
            { value: 'paragraph', label: 'Goes back a paragraph' },
            { value: 'mark', label: 'Marks the sentence' },
          ]}
        />
      </Setting>
    </>
  );
}
