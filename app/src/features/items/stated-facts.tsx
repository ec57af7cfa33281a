import type { Fact } from '@dorvel/core/model';
import { factName, valueInWords } from '@dorvel/core/wording';

/** What the page states in its data of products, recipes, events, books and videos; closed until it is asked for. */
export function StatedFacts({ facts }: { facts: readonly Fact[] }) {
  if (facts.length === 0) return null;
  const things = [...new Set(facts.map(({ about, of }) => `${about} ${of ?? ''}`))];
  return (
    <details className="facts">
      <summary>What the page states ({facts.length})</summary>
      {things.map((thing) => {
        const own = facts.filter(({ about, of }) => `${about} ${of ?? ''}` === thing);
        return (
          <div key={thing}>
            {own[0]?.of && <p className="facts-of">{own[0].of}</p>}
            <dl>
              {own.map(({ key, value }) => (
                <div key={key}>
                  <dt>{factName(key)}</dt>
                  <dd>{valueInWords(value)}</dd>
                </div>
              ))}
            </dl>
          </div>
        );
      })}
    </details>
  );
}
