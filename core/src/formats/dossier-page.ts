import escape from 'escape-html';
import type { CompiledPart } from '../dossier';
import type { Item } from '../model';
import { dayInWords, inMinutes, PURPOSE_WORDS, sourceOf, titleOf } from '../wording';
import { asGrid, type HandedOn, type Head, oneLine, shownParts, sourceLine, webAddress } from './dossier-handed-on';
import { markdownAsHtml } from './markdown';

/** Where the page of a dossier stands. */
interface PageAt {
  /** Its style: a sheet to be linked, or the rules themselves for a page that stands alone. */
  style: { href: string } | { rules: string };
  /** Where a picture can be had; null where it cannot. */
  picture(hash: string): string | null;
  /** What stands in its head besides; markup. */
  head?: string;
  /** What stands under it besides; markup. */
  foot?: string;
}

const line = (words: string): string => escape(oneLine(words));
/** Isolated: a title that is written from right to left leaves what stands beside it where it is. */
const bdi = (words: string): string => `<bdi>${line(words)}</bdi>`;
const link = (item: Item): string => {
  const address = webAddress(item);
  return address === null
    ? bdi(titleOf(item))
    : `<a href="${escape(address)}" rel="noopener">${bdi(titleOf(item))}</a>`;
};

/**
 * A dossier as a page (HTML Living Standard) that needs no script: the reader's own words, passages with their sources, titles,
 * links, chosen pictures and facts; no article of somebody else's. All that is not ours is text in it.
 */
export function dossierPage(handedOn: HandedOn, at: PageAt): string {
  const { compiled, owner, updatedAt, table } = handedOn;
  const parts = shownParts(compiled);
  const lead = compiled.lead === null ? null : at.picture(compiled.lead);
  const headings = parts.flatMap((part) => (part.kind === 'heading' && part.depth === 1 ? [part] : []));
  const day = new Date(updatedAt).toISOString().slice(0, 10);
  const style =
    'href' in at.style ? `<link rel="stylesheet" href="${escape(at.style.href)}">` : `<style>${at.style.rules}</style>`;
  return (
    `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">` +
    `<title>${line(compiled.title)}</title>${style}${at.head ?? ''}</head><body><header>` +
    `<h1>${bdi(compiled.title)}</h1>` +
    `<p class="by">${owner === null ? '' : `${bdi(owner)} · `}<time datetime="${day}">${escape(dayInWords(day))}</time></p>` +
    `${compiled.introduction === '' ? '' : `<div class="words">${markdownAsHtml(compiled.introduction, 2)}</div>`}</header>` +
    (lead === null ? '' : `<img class="lead" src="${escape(lead)}" alt="">`) +
    (headings.length > 2
      ? `<nav class="contents" aria-label="Contents"><ol>${headings.map(({ entryId, text }) => `<li><a href="#${entryId}">${bdi(text)}</a></li>`).join('')}</ol></nav>`
      : '') +
    `<main>${parts.map((part) => partMarkup(part, at)).join('')}${table === null ? '' : factsMarkup(table)}</main>` +
    `<footer>${compiled.closing === '' ? '' : `<div class="words">${markdownAsHtml(compiled.closing, 2)}</div>`}${at.foot ?? ''}</footer></body></html>`
  );
}

function partMarkup(part: CompiledPart, at: PageAt): string {
  const section = (inside: string) => `<section class="part" id="${part.entryId}">${inside}</section>`;
  switch (part.kind) {
    case 'heading':
      return section(`<h${part.depth + 1}>${bdi(part.text)}</h${part.depth + 1}>`);
    case 'item':
      return section(itemMarkup(part.item));
    case 'passage': {
      const paragraphs = part.words.split('\n\n').map((each) => `<p dir="auto">${escape(each)}</p>`);
      return section(
        `<figure><blockquote>${paragraphs.join('')}</blockquote><figcaption><cite>${sourceMarkup(part.of)}</cite></figcaption></figure>`,
      );
    }
    case 'picture': {
      const address = at.picture(part.hash);
      if (address === null) return '';
      const caption = part.caption === '' ? '' : `${bdi(part.caption)}<br>`;
      return section(
        `<figure><img src="${escape(address)}" alt="${line(part.caption)}" loading="lazy"><figcaption>${caption}<cite>${sourceMarkup(part.of)}</cite></figcaption></figure>`,
      );
    }
    case 'note':
      return section(
        `<div class="note ${part.purpose}"><span class="purpose-name">${PURPOSE_WORDS[part.purpose]}</span>${markdownAsHtml(part.markdown, 3)}</div>`,
      );
    case 'search':
      return part.items.length === 0
        ? ''
        : section(
            `<ul class="found" aria-label="${line(part.text)}">${part.items.map((item) => `<li>${itemMarkup(item)}</li>`).join('')}</ul>`,
          );
    case 'gone':
      return '';
  }
}

function itemMarkup(item: Item): string {
  const minutes = item.capture.page?.minutes;
  return `<p class="title">${link(item)}</p><p class="small">${bdi(sourceOf(item))}${minutes === undefined ? '' : ` · ${inMinutes(minutes)}`}</p>`;
}

function sourceMarkup(item: Item): string {
  const address = webAddress(item);
  return address === null
    ? bdi(sourceLine(item))
    : `<a href="${escape(address)}" rel="noopener">${bdi(sourceLine(item))}</a>`;
}

function factsMarkup(table: NonNullable<HandedOn['table']>): string {
  const grid = asGrid(table);
  if (!grid) return '';
  const headOf = (head: Head) => (typeof head === 'string' ? bdi(head) : link(head));
  const cell = (words: string | null) => (words === null ? '<td>–</td>' : `<td>${bdi(words)}</td>`);
  return (
    `<section class="part facts" id="facts"><div class="frame"><table><caption>What the pages state</caption><thead><tr><td></td>` +
    `${grid.columns.map((head) => `<th scope="col">${headOf(head)}</th>`).join('')}</tr></thead><tbody>` +
    `${grid.rows.map(({ head, cells }) => `<tr><th scope="row">${headOf(head)}</th>${cells.map(cell).join('')}</tr>`).join('')}</tbody></table></div></section>`
  );
}
