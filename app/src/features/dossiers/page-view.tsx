import type { CompiledDossier } from '@dorvel/core/dossier';
import Ellipsis from 'lucide-react/dist/esm/icons/ellipsis.mjs';
import { View } from 'react-native';
import { Markdown } from '@/features/notes/markdown';
import { IconButton } from '@/ui/button';
import { Icon } from '@/ui/icon';
import { namedList } from '@/ui/named-list';
import { Part, partTitle } from './parts';
import { useGrowing } from './use-growing';

interface PageViewProps {
  compiled: CompiledDossier;
  onEdit(entryId: string): void;
}

/** A dossier as a page to be read, each thing with a way to change it. */
export function PageView({ compiled, onEdit }: PageViewProps) {
  const { lead, introduction, closing, parts } = compiled;
  const drawn = useGrowing(parts.length);
  return (
    <View className="gap-[18px]">
      {lead && <img className="dossier-lead" src={`/api/pictures/${lead}.webp`} alt="" />}
      {introduction !== '' && <Markdown written={introduction} />}
      <View {...namedList('In the dossier', parts.length)} className="gap-[18px]">
        {parts.slice(0, drawn).map((part) => (
          <View key={part.entryId} role="listitem" className="flex-row items-start gap-[4px]">
            <View className="min-w-0 flex-1">
              <Part part={part} />
            </View>
            <IconButton name={`What to do with ${partTitle(part)}`} onPress={() => onEdit(part.entryId)}>
              <Icon of={Ellipsis} tone="soft" size={20} />
            </IconButton>
          </View>
        ))}
      </View>
      {closing !== '' && drawn === parts.length && <Markdown written={closing} />}
    </View>
  );
}
