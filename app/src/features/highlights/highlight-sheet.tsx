import { type Highlight, HighlightKind, type Note } from '@dorvel/core/model';
import { liveText, ownNote } from '@dorvel/core/notes';
import { HIGHLIGHT_KIND_WORDS } from '@dorvel/core/wording';
import { useState } from 'react';
import { View } from 'react-native';
import { changeHighlight, writeOwnNote } from '@/device/store/changes';
import { useItem, useOwnNote } from '@/device/store/library';
import { CardSheet } from '@/features/cards/card-sheet';
import { PutInButtons } from '@/features/collecting/put-in-buttons';
import { useNoteSheet } from '@/features/notes/note-store';
import { WritingField } from '@/features/notes/writing-field';
import { PassageTrail } from '@/features/trail/trail';
import { Button } from '@/ui/button';
import { Choice } from '@/ui/choice';
import { Sheet } from '@/ui/sheet';
import { removeHighlight } from './marking';
import { copyPassage, sharePassage } from './share-highlights';

const KINDS = HighlightKind.options.map((value) => ({ value, label: HIGHLIGHT_KIND_WORDS[value] }));

interface HighlightSheetProps {
  highlight: Highlight;
  onClose(): void;
}

/** One highlight: its words, what it is for, what the reader wrote on it. */
export function HighlightSheet(props: HighlightSheetProps) {
  const note = useOwnNote(props.highlight.id);
  // What is in the field is what the reader began with: what comes from elsewhere meanwhile is joined with it when it is kept.
  return note === undefined ? null : <Opened key={props.highlight.id} {...props} note={note} />;
}

function Opened({ highlight, note, onClose }: HighlightSheetProps & { note: Note | null }) {
  const { kind, passage } = highlight.choices;
  const [before, setBefore] = useState(note);
  const [written, setWritten] = useState(liveText(before));
  const [carding, setCarding] = useState(false);
  const item = useItem(highlight.itemId);
  const keepNote = () => {
    if (written !== liveText(before))
      void writeOwnNote(ownNote.ofHighlight(highlight), before, written).then(setBefore);
  };
  if (carding)
    return (
      <CardSheet
        source={{ itemId: highlight.itemId, highlightId: highlight.id, passage: passage.value }}
        passage={passage.value.exact}
        language={null}
        onClose={onClose}
      />
    );
  return (
    <Sheet
      title="Highlight"
      onClose={() => {
        keepNote();
        onClose();
      }}
    >
      <View className="gap-[14px]">
        <p className="marked-words">
          <span className={`mark-sample mark-${kind.value}`}>{passage.value.exact}</span>
        </p>
        <Choice
          name="What it is for"
          options={KINDS}
          value={kind.value}
          onChange={(value) => void changeHighlight(highlight.id, { kind: value })}
        />
        <WritingField label="Note" value={written} onChangeText={setWritten} onBlur={keepNote} />
        <PassageTrail highlight={highlight} />
        <View className="flex-row flex-wrap gap-[10px]">
          <Button
            label="Write another note on it"
            onPress={() => {
              keepNote();
              onClose();
              const { itemId, id } = highlight;
              const about = passage.value.exact.slice(0, 120);
              useNoteSheet.getState().write({ note: null, itemId, on: { kind: 'highlight', id }, about });
            }}
          />
          <Button
            label="Make a card"
            onPress={() => {
              keepNote();
              setCarding(true);
            }}
          />
          <PutInButtons
            things={[{ kind: 'passage', itemId: highlight.itemId, highlightId: highlight.id }]}
            onPress={() => {
              keepNote();
              onClose();
            }}
          />
          <Button label="Copy" onPress={() => void copyPassage(passage.value.exact)} />
          {item && <Button label="Share" onPress={() => void sharePassage(passage.value.exact, item)} />}
          <Button
            label="Remove"
            kind="loss"
            onPress={() => {
              onClose();
              void removeHighlight(highlight);
            }}
          />
        </View>
      </View>
    </Sheet>
  );
}
