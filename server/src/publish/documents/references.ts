import '@citation-js/plugin-bibtex';
import '@citation-js/plugin-csl';
import '@citation-js/plugin-ris';
import { Cite, plugins } from '@citation-js/core';
import { asCsl } from '@dorvel/core/formats';
import type { Item } from '@dorvel/core/model';

// Its own labels are not each other's only.
plugins.config.get('@bibtex').format.useIdAsLabel = true;

/** The sources of a dossier for a bibliography. @returns text */
export function references(items: readonly Item[], as: 'bibtex' | 'ris' | 'csl-json' | 'references'): string {
  const csl = asCsl(items);
  if (as === 'csl-json') return JSON.stringify(csl, null, 2);
  const cite = new Cite(csl);
  if (as === 'references') return cite.format('bibliography', { format: 'text', template: 'apa', lang: 'en-US' });
  return cite.format(as);
}
