import type { ArticleTree } from '@dorvel/core/model';
import type { Element, ElementContent, Root } from 'hast';
import { useMemo } from 'react';
import { View } from 'react-native';
import { asElements } from '@/article/article-body';
import { Button } from '@/ui/button';
import { Sheet } from '@/ui/sheet';

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

/** What a note says, without the way back that it carries. */
function noteIn(tree: Root, id: string): Root | null {
  const found = find(tree, id);
  if (!found) return null;
  const without = (nodes: ElementContent[]): ElementContent[] =>
    nodes.flatMap((node): ElementContent[] => {
      if (node.type !== 'element') return [node];
      const { href } = node.properties;
      if (node.tagName === 'a' && typeof href === 'string' && href.startsWith('#')) return [];
      const { id: _, ...properties } = node.properties;
      return [{ ...node, properties, children: without(node.children) }];
    });
  return { type: 'root', children: without(found.children) };
}

function find(node: Root | Element, id: string): Element | null {
  for (const child of node.children) {
    if (child.type !== 'element') continue;
    if (child.properties.id === id) return child;
    const inside = find(child, id);
    if (inside) return inside;
  }
  return null;
}
