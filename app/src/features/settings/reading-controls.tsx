import Minus from 'lucide-react/dist/esm/icons/minus.mjs';
import Plus from 'lucide-react/dist/esm/icons/plus.mjs';
import { Text, View } from 'react-native';
import { IconButton } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Icon } from '@/ui/icon';
import { Setting, Switch } from '@/ui/setting';
import { SIZES, TYPEFACES, useReadingSettings } from './reading-settings-store';

/** The choices of how text looks; the same in the reader's sheet and on the settings screen. */
export function ReadingControls() {
  const settings = useReadingSettings();
  const step = (by: 1 | -1) => {
    const at = SIZES.findIndex((size) => size >= settings.size);
    const size = SIZES[at + by];
    if (size !== undefined) settings.change({ size });
  };
  return (
    <View className="gap-[18px]">
      <Setting label="Theme">
        <Choice
          name="Theme"
          value={settings.theme}
          onChange={(theme) => settings.change({ theme })}
          options={[
            { value: 'day', label: 'Day' },
            { value: 'night', label: 'Night' },
            { value: 'system', label: 'As the system' },
          ]}
        />
      </Setting>
      <Setting label="Typeface">
        <Choice
          name="Typeface"
          value={settings.typeface}
          onChange={(typeface) => settings.change({ typeface })}
          options={(Object.keys(TYPEFACES) as (keyof typeof TYPEFACES)[]).map((value) => ({
            value,
            label: TYPEFACES[value].label,
            fontFamily: TYPEFACES[value].family,
          }))}
        />
      </Setting>
      <Setting label="Size">
        <View className="flex-row items-center gap-[10px]">
          <IconButton name="Smaller text" onPress={() => step(-1)}>
            <Icon of={Minus} tone="ink" size={22} />
          </IconButton>
          <Text aria-live="polite" className="min-w-[64px] text-center font-ui text-base text-ink">
            {settings.size} px
          </Text>
          <IconButton name="Larger text" onPress={() => step(1)}>
            <Icon of={Plus} tone="ink" size={22} />
          </IconButton>
        </View>
      </Setting>
      <Setting label="Line spacing">
        <Choice
          name="Line spacing"
          value={settings.leading}
          onChange={(leading) => settings.change({ leading })}
          options={[
            { value: 'close', label: 'Close' },
            { value: 'even', label: 'Even' },
            { value: 'open', label: 'Open' },
          ]}
        />
      </Setting>
      <Setting label="Line length">
        <Choice
          name="Line length"
          value={settings.measure}
          onChange={(measure) => settings.change({ measure })}
          options={[
            { value: 'narrow', label: 'Short' },
            { value: 'middle', label: 'Middle' },
            { value: 'wide', label: 'Long' },
          ]}
        />
      </Setting>
      <Setting label="Paragraphs">
        <Choice
          name="Paragraphs"
          value={settings.paragraphs}
          onChange={(paragraphs) => settings.change({ paragraphs })}
          options={[
            { value: 'spaced', label: 'Spaced' },
            { value: 'indented', label: 'Indented' },
          ]}
        />
      </Setting>
      <Setting label="Scroll or turn">
        <Choice
          name="Scroll or turn"
          value={settings.flow}
          onChange={(flow) => settings.change({ flow })}
          options={[
            { value: 'scroll', label: 'Scroll' },
            { value: 'pages', label: 'Turn pages' },
          ]}
        />
      </Setting>
      <Setting label="Echoes: words that stand elsewhere in your library">
        <Choice
          name="Echoes"
          value={settings.echoes}
          onChange={(echoes) => settings.change({ echoes })}
          options={[
            { value: 'few', label: 'Few' },
            { value: 'more', label: 'More' },
            { value: 'none', label: 'None' },
          ]}
        />
      </Setting>
      <Switch
        label="Justified"
        about="Words are parted at their ends, in languages that this browser can part."
        on={settings.justified}
        onChange={(justified) => settings.change({ justified })}
      />
      <Switch
        label="Wrap code"
        about="Long lines of code go on below instead of scrolling."
        on={settings.wrapsCode}
        onChange={(wrapsCode) => settings.change({ wrapsCode })}
      />
    </View>
  );
}
