import { useState } from 'react';
import { EVERYWHERE, requestPages } from '../background/page-scripts';
import { Button, Part } from '../ui/controls';

/** Whether what the reader marked is shown on the pages themselves. Off until they say so. */
export function LiveMarks({ shown, show }: { shown: boolean; show(shown: boolean): void }) {
  const [fault, setFault] = useState<string | null>(null);
  const begin = async () => {
    const granted = await requestPages(EVERYWHERE);
    setFault(granted ? null : 'Without that permission nothing can be shown on pages.');
    if (granted) show(true);
  };
  return (
    <Part heading="Highlights on the pages themselves">
      <p className="font-ui text-base text-ink">
        Select words on any page and choose “Mark it” after a right click: the page is saved with it. When you open the
        page again, what you marked can be shown there.
      </p>
      <p className="font-ui text-small text-soft">
        For that the extension has to be let in to every page. Which pages you open is told to nobody, your own server
        included, but for those in which something is marked.
      </p>
      {fault !== null && (
        <p role="alert" className="font-ui text-small text-brick">
          {fault}
        </p>
      )}
      <div>
        {shown ? (
          <Button label="Do not show them" onPress={() => show(false)} />
        ) : (
          <Button label="Show them on pages" onPress={() => void begin()} />
        )}
      </div>
    </Part>
  );
}
