import type { DossierAccent, DossierDesign, DossierTypeface } from '../model';

interface Palette {
  ground: string;
  raised: string;
  line: string;
  ink: string;
  soft: string;
}

export const PAGE_PALETTES: Readonly<Record<'day' | 'night', Palette>> = {
  day: { ground: '#FBF8F2', raised: '#FFFDF9', line: '#CFC6B8', ink: '#2B2033', soft: '#5E5268' },
  night: { ground: '#18121D', raised: '#231B2A', line: '#4B3D55', ink: '#EEE6DA', soft: '#B9ADBF' },
};

/** An accent by day and by night: of links on the ground, and of a ground that carries `on`. */
export const PAGE_ACCENTS: Readonly<
  Record<DossierAccent, Readonly<Record<'day' | 'night', { accent: string; on: string }>>>
> = {
  plum: { day: { accent: '#6E2F6B', on: '#FFF9F2' }, night: { accent: '#D7A0D6', on: '#2A1030' } },
  moss: { day: { accent: '#4C5F2A', on: '#FFFDF4' }, night: { accent: '#B4C98B', on: '#1C2410' } },
  ochre: { day: { accent: '#7E5200', on: '#FFF9EC' }, night: { accent: '#E3B75A', on: '#2B1E05' } },
  brick: { day: { accent: '#9A2F1E', on: '#FFF6F2' }, night: { accent: '#F19A86', on: '#38120A' } },
  ink: { day: { accent: '#2B2033', on: '#FBF8F2' }, night: { accent: '#EEE6DA', on: '#18121D' } },
};

const FACES: Readonly<Record<DossierTypeface, string>> = {
  literata: "'Literata Variable','Literata',Georgia,serif",
  'source-serif': "'Source Serif 4 Variable','Source Serif 4',Georgia,serif",
  atkinson: "'Atkinson Hyperlegible Next Variable','Atkinson Hyperlegible Next',Verdana,sans-serif",
};
const PLAIN = "'Atkinson Hyperlegible Next Variable','Atkinson Hyperlegible Next',Verdana,sans-serif";

const variables = (values: object): string =>
  Object.entries(values)
    .map(([name, value]) => `--${name}:${String(value)}`)
    .join(';');

/** What all designs have in common. */
const COMMON = `
*{box-sizing:border-box}
html{background:var(--ground);color:var(--ink);-webkit-text-size-adjust:100%}
body{margin:0;padding:0 20px 64px;font:18px/1.55 var(--face);overflow-wrap:break-word}
body>*{max-width:var(--measure);margin-inline:auto}
a{color:var(--accent);text-underline-offset:.15em}
a:focus-visible,button:focus-visible,input:focus-visible{outline:3px solid var(--accent);outline-offset:2px}
h1,h2,h3{line-height:1.2;text-wrap:balance;font-weight:600}
h1{font-size:2.1em;margin:.4em 0}
h2{font-size:1.45em;margin:2em 0 .6em}
h3{font-size:1.15em;margin:1.6em 0 .4em}
.part{margin:0 0 1.8em}
.part :is(h2,h3):first-child{margin-top:1em}
.title{font-size:1.15em;font-weight:600;line-height:1.3;margin:0}
.small,.by,figcaption,.purpose-name,cite{font:15px/1.45 ${PLAIN};font-style:normal;color:var(--soft)}
.small a,cite a{display:inline-block;padding:4px 0}
blockquote{margin:0 0 .4em;padding-inline-start:1em;border-inline-start:3px solid var(--accent)}
blockquote p{margin:0 0 .5em}
figure{margin:0}
img{display:block;max-width:100%;height:auto;border-radius:6px}
.lead{width:100%;max-width:var(--measure);max-height:420px;object-fit:cover;margin:28px auto 0}
.note{padding-inline-start:1em;border-inline-start:5px solid var(--accent)}
.note>:last-child,.words>:last-child{margin-bottom:0}
.purpose-name{display:block;font-weight:600}
.note.bridge{border-inline-start-width:2px}
.note.summary{border-inline-start:7px double var(--soft)}
.note.judgement{border-inline-start-width:9px}
.note.question{border-inline-start-style:dotted}
.note.next-step{border-inline-start-style:dashed}
.frame{overflow-x:auto;max-width:min(1100px,calc(100vw - 40px))}
table{border-collapse:collapse;font:15px/1.4 ${PLAIN};font-variant-numeric:tabular-nums;min-width:100%}
th,td{text-align:start;vertical-align:top;padding:8px 12px 8px 0;border-bottom:1px solid var(--line)}
caption{text-align:start;font-weight:600;padding:0 0 8px}
.found{list-style:none;margin:0;padding:0}
.contents{display:none}
footer{margin-top:48px;padding-top:14px;border-top:1px solid var(--line);font:15px/1.5 ${PLAIN};color:var(--soft)}
input,button{font:inherit;min-height:48px;padding:8px 14px;border:1.5px solid var(--soft);border-radius:10px;background:var(--raised);color:var(--ink)}
button{background:var(--accent);border-color:var(--accent);color:var(--on)}
@page{margin:18mm 16mm}
@media print{:root{--ground:#fff;--raised:#fff;--ink:#000;--soft:#333;--accent:#000;--on:#000;--line:#999}
body{font-size:11pt;padding:0}h2,h3,.title{break-after:avoid}.part,figure,tr{break-inside:avoid}
.no-print,.contents{display:none}a[href^=http]::after{content:" (" attr(href) ")";font-size:.8em;overflow-wrap:anywhere}
.facts a[href^=http]::after{content:none}.frame{overflow:visible;max-width:none}}
`;

const DESIGNS: Readonly<Record<DossierDesign, string>> = {
  quiet: `:root{--measure:620px}header{padding-top:48px}header h1{font-weight:500}.part+.part{padding-top:1.8em;border-top:1px solid var(--line)}.part:has(>h2){border:0}`,
  report: `:root{--measure:760px}body{font-family:${PLAIN};counter-reset:section}header{padding-top:40px;border-bottom:6px solid var(--accent);padding-bottom:18px}
h1{font-size:1.9em}.part h2{counter-increment:section;counter-set:sub}.part h2::before{content:counter(section) "  ";color:var(--accent)}.part h3{counter-increment:sub}.part h3::before{content:counter(section) "." counter(sub) "  ";color:var(--accent)}
.words,blockquote,.note{font-family:var(--face)}.contents{display:block;margin-block:24px}.contents ol{margin:0;padding-inline-start:1.4em}.contents a{display:inline-block;padding:6px 0}`,
  almanac: `:root{--measure:980px}header{text-align:center;padding:36px 0 18px;border-bottom:6px double var(--ink)}h1{font-variant-caps:small-caps;letter-spacing:.04em}
.part h2{font-variant-caps:small-caps;letter-spacing:.05em;text-align:center;border-block:3px double var(--line);padding:.2em 0;column-span:all}
main{margin-top:24px}.part{break-inside:avoid}@media(min-width:900px){main{columns:2;column-gap:48px;column-rule:1px solid var(--line)}.frame,.facts{column-span:all}}.words p,.note p{hyphens:auto}`,
  poster: `:root{--measure:820px}header{max-width:none;margin:0 -20px;padding:12vh max(20px,calc(50vw - 410px)) 56px;background:var(--accent);color:var(--on)}header a,header .by{color:var(--on)}
h1{font-size:clamp(2.4em,9vw,4.6em);line-height:1.02;letter-spacing:-.02em;margin:0 0 .3em}main{margin-top:48px}.part h2{font-size:2.2em;color:var(--accent)}blockquote{font-size:1.35em;border:0;padding:0;line-height:1.35}
@media print{header{margin:0;padding:0 0 .6em;background:none;border-bottom:6px solid var(--ink)}}`,
  sheets: `:root{--measure:1120px}header{padding-top:40px}main{display:grid;grid-template-columns:repeat(auto-fill,minmax(min(320px,100%),1fr));gap:18px;align-items:start}
.part{margin:0;padding:20px;background:var(--raised);border:1px solid var(--line);border-radius:14px}.part:has(>h2),.part:has(>h3){grid-column:1/-1;background:none;border:0;padding:0}.facts{grid-column:1/-1}
@media print{main{display:block}.part{border:0;padding:0;margin-bottom:1.5em}}`,
};

/** The style sheet of a page that hands a dossier on: by day, by night, and in print. */
export function dossierStyle({
  design,
  accent,
  typeface,
}: {
  design: DossierDesign;
  accent: DossierAccent;
  typeface: DossierTypeface;
}): string {
  const theme = (time: 'day' | 'night') => variables({ ...PAGE_PALETTES[time], ...PAGE_ACCENTS[accent][time] });
  return (
    `:root{color-scheme:light dark;--face:${FACES[typeface]};${theme('day')}}` +
    `@media screen and (prefers-color-scheme:dark){:root{${theme('night')}}}` +
    COMMON +
    DESIGNS[design]
  ).replace(/\n/g, '');
}
