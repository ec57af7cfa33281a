import { TextSettings } from '@/features/settings/text-settings';
import { YouIndex } from '@/features/you/you-index';
import { useWide } from '@/ui/wide';

export default function You() {
  return useWide() ? <TextSettings /> : <YouIndex at={null} />;
}
