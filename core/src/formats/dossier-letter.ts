import escape from 'escape-html';
import type { CompiledPart } from '../dossier';
import type { Item } from '../model';
import { inMinutes, PURPOSE_WORDS, sourceOf, titleOf } from '../wording';
import type { Letter } from './come-back';
import { asGrid, type HandedOn, type Head, oneLine, shownParts, sourceLine, webAddress } from './dossier-handed-on';
import { dossierMarkdown } from './dossier-markdown';
import { PAGE_ACCENTS, PAGE_PALETTES } from './dossier-style';
import { markdownAsHtml } from './markdown';

/**
 * A dossier as a letter: plain text, and HTML with inline styles only, as mail programs drop sheets. Without pictures: they
 * would have to come from this server, which then knew who reads the letter, and when.
 *
 * @param words what its sender says before it
 */
export function dossierLetter(handedOn: HandedOn, words = ''): Letter {
  const { compiled, owner, table } = handedOn;
  const { ink, soft, line, ground } = PAGE_PALETTES.day;
  const { accent } = PAGE_ACCENTS[handedOn.accent].day;
  const style = { ink, soft, line, accent };
  const body = [
    ...(words === '' ? [] : [`<div style="margin:0 0 24px;white-space:pre-line">${escape(words)}</div>`]),
    `<h1 style="margin:0 0 8px;font-size:26px;line-height:1.2;color:${ink}">${escape(oneLine(compiled.title))}</h1>`,
    ...(owner === null
      ? []
      : [`<p style="margin:0 0 16px;font-size:14px;color:${soft}">${escape(oneLine(owner))}</p>`]),
    ...(compiled.introduction === '' ? [] : [markdownAsHtml(compiled.introduction, 2)]),
    ...shownParts(compiled).map((part) => partMarkup(part, style)),
    ...(table === null ? [] : [factsMarkup(table, style)]),
    ...(compiled.closing === '' ? [] : [markdownAsHtml(compiled.closing, 2)]),
  ];
  return {
    subject: oneLine(compiled.title).slice(0, 200),
    text: `${words === '' ? '' : `${words}\n\n`}${dossierMarkdown(handedOn).replace(/^---\n[^]*?\n---\n\n/, '')}`,
    html: `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escape(oneLine(compiled.title))}</title></head><body style="margin:0;padding:20px;background:${ground};color:${ink};font-family:Georgia,serif;font-size:17px;line-height:1.5"><div style="max-width:600px;margin:0 auto">${body.join('')}</div></body></html>`,
  };
}

interface Style {
  ink: string;
  soft: string;
  line: string;
  accent: string;
}

const link = (item: Item, words: string, { accent }: Style): string => {
  const address = webAddress(item);
  return address === null
    ? escape(oneLine(words))
    : `<a href="${escape(address)}" style="color:${accent}">${escape(oneLine(words))}</a>`;
};

function partMarkup(part: CompiledPart, style: Style): string {
  const item = (each: Item) => {
    const minutes = each.capture.page?.minutes;
    return `<p style="margin:0 0 18px"><b>${link(each, titleOf(each), style)}</b><br><span style="font-size:14px;color:${style.soft}">${escape(oneLine(sourceOf(each)))}${minutes === undefined ? '' : ` · ${inMinutes(minutes)}`}</span></p>`;
  };
  switch (part.kind) {
    case 'heading':
      return `<h${part.depth + 1} style="margin:28px 0 8px;font-size:${part.depth === 1 ? 21 : 18}px;color:${style.ink}">${escape(oneLine(part.text))}</h${part.depth + 1}>`;
    case 'item':
      return item(part.item);
    case 'search':
      return part.items.map(item).join('');
    case 'passage':
      return `<blockquote style="margin:0 0 18px;padding-left:14px;border-left:3px solid ${style.accent}">${part.words
        .split('\n\n')
        .map((each) => `<p style="margin:0 0 8px">${escape(each)}</p>`)
        .join('')}<span style="font-size:14px">${link(part.of, sourceLine(part.of), style)}</span></blockquote>`;
    case 'picture':
      return `<p style="margin:0 0 18px;font-size:14px">A picture: ${part.caption === '' ? '' : `${escape(oneLine(part.caption))}, `}${link(part.of, sourceLine(part.of), style)}</p>`;
    case 'note':
      return `<div style="margin:0 0 18px;padding-left:14px;border-left:5px solid ${style.line}"><span style="font-size:14px;font-weight:600;color:${style.soft}">${PURPOSE_WORDS[part.purpose]}</span>${markdownAsHtml(part.markdown, 3)}</div>`;
    case 'gone':
      return '';
  }
}

function factsMarkup(table: NonNullable<HandedOn['table']>, style: Style): string {
  const grid = asGrid(table);
  if (!grid) return '';
  const headOf = (head: Head) => (typeof head === 'string' ? escape(head) : link(head, titleOf(head), style));
  const cell = (inside: string, tag: 'th' | 'td') =>
    `<${tag} style="padding:6px 10px 6px 0;text-align:left;vertical-align:top;border-bottom:1px solid ${style.line}">${inside}</${tag}>`;
  const row = (cells: readonly string[]) => `<tr>${cells.join('')}</tr>`;
  return `<table style="border-collapse:collapse;font-size:14px;margin:0 0 18px">${row([
    cell('', 'td'),
    ...grid.columns.map((head) => cell(headOf(head), 'th')),
  ])}${grid.rows
    .map(({ head, cells }) => row([cell(headOf(head), 'th'), ...cells.map((each) => cell(escape(each ?? '–'), 'td'))]))
    .join('')}</table>`;
}
