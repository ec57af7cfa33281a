import { TagsScreen } from '@/features/tags/tags-screen';

export default function Tags() {
  return <TagsScreen />;
}
