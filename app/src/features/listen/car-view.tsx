import Highlighter from 'lucide-react/dist/esm/icons/highlighter.mjs';
import Pause from 'lucide-react/dist/esm/icons/pause.mjs';
import Play from 'lucide-react/dist/esm/icons/play.mjs';
import RotateCcw from 'lucide-react/dist/esm/icons/rotate-ccw.mjs';
import type { ComponentProps } from 'react';
import { Pressable, View } from 'react-native';
import { Icon } from '@/ui/icon';
import { useNotices } from '@/ui/notices';
import { Sheet } from '@/ui/sheet';
import { usePlayer } from './player-store';

/** Listening with the eyes on the road: three targets that are found without looking, and nothing to read. */
export function CarView({ onClose }: { onClose(): void }) {
  const { hearing, playing, pause, goOn, sayAgain, markHeard } = usePlayer();
  const show = useNotices((state) => state.show);
  if (!hearing) return null;
  return (
    <Sheet whole title="Car" onClose={onClose}>
      <View className="flex-1 gap-[14px]">
        <Target name="Say that again, slower" icon={RotateCcw} onPress={sayAgain} />
        <Target
          main
          name={playing ? 'Pause' : 'Go on listening'}
          icon={playing ? Pause : Play}
          onPress={playing ? pause : goOn}
        />
        <Target
          name="Mark what was said"
          icon={Highlighter}
          onPress={() => void markHeard().then(() => show({ text: 'Marked.' }))}
        />
      </View>
    </Sheet>
  );
}

interface TargetProps {
  name: string;
  icon: ComponentProps<typeof Icon>['of'];
  main?: boolean;
  onPress(): void;
}

function Target({ name, icon, main = false, onPress }: TargetProps) {
  return (
    <Pressable
      role="button"
      aria-label={name}
      onPress={onPress}
      className={`flex-1 items-center justify-center rounded-[28px] ${main ? 'bg-accent' : 'bg-sunken'}`}
    >
      <Icon of={icon} tone={main ? 'on-accent' : 'ink'} size={88} />
    </Pressable>
  );
}
