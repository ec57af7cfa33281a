import { RATE_RANGE } from '@dorvel/core/listening';
import Minus from 'lucide-react/dist/esm/icons/minus.mjs';
import Plus from 'lucide-react/dist/esm/icons/plus.mjs';
import { Text, View } from 'react-native';
import { IconButton } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Icon } from '@/ui/icon';
import { Setting } from '@/ui/setting';
import { useListeningSettings } from './listening-settings-store';
import { usePlayer } from './player-store';

const RATES = ['0.8', '1', '1.2', '1.5', '2'] as const;

/** How fast the voice speaks. */
export function SpeedChoice() {
  const rate = useListeningSettings((state) => state.rate);
  const { setRate } = usePlayer();
  return (
    <Setting label="Speed">
      <View className="flex-row items-center gap-[10px]">
        <IconButton name="Slower" onPress={() => setRate(rate - RATE_RANGE.step)}>
          <Icon of={Minus} tone="ink" size={22} />
        </IconButton>
        <Text aria-live="polite" className="min-w-[64px] text-center font-ui text-base text-ink">
          {rate.toFixed(1)}×
        </Text>
        <IconButton name="Faster" onPress={() => setRate(rate + RATE_RANGE.step)}>
          <Icon of={Plus} tone="ink" size={22} />
        </IconButton>
      </View>
      <Choice
        oneLine
        name="Speed"
        value={String(rate)}
        onChange={(value) => setRate(Number(value))}
        options={RATES.map((value) => ({ value, label: `${value}×` }))}
      />
    </Setting>
  );
}
