import { type ReactElement, useEffect, useState } from 'react';
import { asElements } from '@/article/article-body';

/** What the reader wrote in Markdown, set. Until what reads it has come, it stands as it is written. */
export function Markdown({ written }: { written: string }) {
  const [set, setSet] = useState<{ of: string; content: ReactElement } | null>(null);
  useEffect(() => {
    let wanted = true;
    void import('@/device/formats').then(({ markdownTree }) => {
      if (wanted) setSet({ of: written, content: asElements(markdownTree(written)) });
    });
    return () => void (wanted = false);
  }, [written]);
  return <div className="article written-note">{set?.of === written ? set.content : <p>{written}</p>}</div>;
}
