import { useState } from 'react';
import { requestPages } from '../background/page-scripts';
import { readSearchPage } from '../background/search-pages';
import { Button, Field, Part } from '../ui/controls';

/** The pages that search the web on which a line may say what the reader's own library has. None at first. */
export function SearchPages({ searches, keep }: { searches: readonly string[]; keep(searches: string[]): void }) {
  const [written, setWritten] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const add = async () => {
    const page = readSearchPage(written);
    if (!page) {
      setFault('Write the address of a search with %s where the words stand: https://search.example/?q=%s');
      return;
    }
    // The browser asks the reader, for this one site.
    if (!(await requestPages([page.pattern]))) {
      setFault('Without that permission no line can be shown there.');
      return;
    }
    setFault(null);
    setWritten('');
    keep([...new Set([...searches, written.trim()])]);
  };
  return (
    <Part heading="When you search the web">
      <p className="font-ui text-base text-ink">
        A line can say what your library has on it. Only on the pages that you name here; what you look for there is
        asked of your own server, and of nobody else.
      </p>
      {searches.length > 0 && (
        <ul className="flex flex-col">
          {searches.map((each) => (
            <li key={each} className="flex items-center justify-between gap-[10px] border-b border-line py-[8px]">
              <span className="min-w-0 flex-1 break-all font-ui text-base text-ink">{each}</span>
              <Button
                label="Leave out"
                name={`Leave out ${each}`}
                kind="loss"
                onPress={() => keep(searches.filter((other) => other !== each))}
              />
            </li>
          ))}
        </ul>
      )}
      <Field label="Address of a search" value={written} onChange={setWritten} fault={fault} />
      <div>
        <Button label="Show the line there" onPress={() => void add()} />
      </div>
    </Part>
  );
}
