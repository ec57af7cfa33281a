import { Choice } from '@/ui/choice';
import { Page } from '@/ui/page';
import { Setting, Switch } from '@/ui/setting';
import { useListSettings } from './list-settings-store';

/** How Inbox, Queue and Library look. */
export function ListSettings() {
  const { pictures, density, change } = useListSettings();
  return (
    <Page title="How lists look" aside="on this device">
      <Switch
        label="Pictures"
        about="The first picture of a page at the end of its row, and the icon of its site."
        on={pictures}
        onChange={(on) => change({ pictures: on })}
      />
      <Setting label="Rows">
        <Choice
          name="Rows"
          value={density}
          onChange={(value) => change({ density: value })}
          options={[
            { value: 'roomy', label: 'Roomy' },
            { value: 'compact', label: 'Compact' },
          ]}
        />
      </Setting>
    </Page>
  );
}
