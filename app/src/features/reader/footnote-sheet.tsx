import type { ArticleTree } from '@dorvel/core/model';
import { useMemo } from 'react';
import { View } from 'react-native';
import { asElements } from '@/article/article-body';
import { Button } from '@/ui/button';
import { Sheet } from '@/ui/sheet';
import { noteIn } from './footnote';

interface FootnoteSheetProps {
  tree: ArticleTree;
  /** The id of the note in the tree. */
  id: string;
  style: Record<string, string>;
  onGo(): void;
  onClose(): void;
}

/** A footnote over the text that it belongs to; closing it leads back to its mark. */
export function FootnoteSheet({ tree, id, style, onGo, onClose }: FootnoteSheetProps) {
  const note = useMemo(() => noteIn(tree, id), [tree, id]);
  return (
    <Sheet title="Note" onClose={onClose}>
      <View className="gap-[14px]">
        <div className="article" style={style}>
          {note ? asElements(note) : <p>The note did not come through.</p>}
        </div>
        <View className="flex-row">
          <Button label="Go to the notes" onPress={onGo} />
        </View>
      </View>
    </Sheet>
  );
}
