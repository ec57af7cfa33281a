import { extractArticle } from '..';
import { siteNameOf } from './site-name';

const source = (name: string, weight = 2) => ({ name, weight });

describe('the name of a site', () => {
  it.each<[string, Parameters<typeof siteNameOf>[0], string, string | null]>([
    ['what is stated', [source('The Slipway', 3)], 'slipway.example', 'The Slipway'],
    [
      'what the host speaks, over who owns it',
      [source('Grevelin Media AB', 3), source('The Slipway')],
      'www.slipway.example',
      'The Slipway',
    ],
    [
      'who claims the copyright, over a bare address',
      [source('skerrowtimes.example', 3), source('The Skerrow Times', 0.5)],
      'www.skerrowtimes.example',
      'The Skerrow Times',
    ],
    [
      'a host made of the beginnings of the words',
      [source('Elsewhere', 2), source('Northern Yard Times', 2)],
      'nytimes.example',
      'Northern Yard Times',
    ],
    [
      'a host on a second level',
      [source('Elsewhere', 2), source('Boat Building Quarterly', 2)],
      'bbq.co.uk',
      'Boat Building Quarterly',
    ],
    [
      'what two places agree on',
      [source('Elsewhere', 2.5), source('Tidewater', 2), source('tidewater', 1.5)],
      'pages.example',
      'Tidewater',
    ],
    ['a name without its motto', [source('Tidewater: A Happy Place!', 3)], 'tidewater.example', 'Tidewater'],
    [
      'a name with a comma that the host speaks as a whole',
      [source('Salt, Rope', 3)],
      'saltrope.example',
      'Salt, Rope',
    ],
    [
      'a name with its article, where one place gives it so',
      [source('Skerrow Times', 3), source('The Skerrow Times', 1)],
      'skerrowtimes.example',
      'The Skerrow Times',
    ],
    [
      'the words of a longer name that are all of the host',
      [source('Tide News and Island Report', 3)],
      'tidenews.example',
      'Tide News',
    ],
    ['a name of which the host is one word', [source('Tidewater News', 3)], 'tidewater.example', 'Tidewater News'],
    [
      'an address that is written as a name, inside a longer one too',
      [source('Recipes from SaltRope.it', 3)],
      'recipes.saltrope.it',
      'SaltRope',
    ],
    [
      'such an address on a host under another, over a part of it',
      [source('TIDE.com', 3), source('TIDE North')],
      'tide.go.example',
      'TIDE',
    ],
    ['with a capital, as it stands alone', [source('the Larch')], 'larch.example', 'The Larch'],
    ['a manual without what stands behind its version', [source('Larch 7.4 Hilfe')], 'larch.example', 'Larch'],
    ['a manual without its version', [source('Larch 22.2.0 documentation')], 'larch.example', 'Larch'],
    [
      'the host, where nothing is said',
      [source(''), { name: null, weight: 3 }],
      'www.slipway.example',
      'slipway.example',
    ],
    ['nothing, where there is no name to speak', [], '127.0.0.1', null],
    ['nothing, where the page came from a file', [], 'nowhere.invalid', null],
  ])('is %s', (_name, sources, host, wanted) => expect(siteNameOf(sources, host)).toBe(wanted));
});

const at = (body: string, head: string) =>
  extractArticle(
    `<!doctype html><html lang="en"><head>${head}</head><body>${body}<p>${'The ferry left at noon, as it had for forty years, and nobody thought anything of it. '.repeat(4)}</p></body></html>`,
    'https://www.skerrowtimes.example/2015/larch',
  );

it.each<[string, string, string, string]>([
  [
    'behind what the page is for, and at its head',
    '<h1>Skerrow Parish</h1>',
    '<title>Sign in — Skerrow Parish</title>',
    'Skerrow Parish',
  ],
  ['beside the headline in the title', '<h1>Larch or oak</h1>', '<title>Larch or oak | Tidewater</title>', 'Tidewater'],
  ['before it', '<h1>Larch or oak</h1>', '<title>Tidewater: Larch or oak</title>', 'Tidewater'],
  [
    'in the picture that leads home',
    '<a href="/"><img src="l.png" alt="The Skerrow Times logo"></a><h1>Larch</h1>',
    '<title>Larch</title>',
    'The Skerrow Times',
  ],
  [
    'on the sign of a manual, which leads to the manual’s first page',
    '<p class="logo"><a href="../index.html"><img src="l.png" alt="Logo"></a></p><p class="logo"><a href="../index.html">Larchwood</a></p><h1>Larch</h1>',
    '<title>Larch</title>',
    'Larchwood',
  ],
  [
    'not on the brand of what is sold',
    '<h1>Larch</h1><p><a class="product-brand" href="/brands/oakum">Oakum</a></p>',
    '<title>Larch</title>',
    'skerrowtimes.example',
  ],
  [
    'at the copyright',
    '<h1>Larch</h1><p class="c">Copyright © 2015 The Skerrow Times Company</p>',
    '<title>Larch</title>',
    'The Skerrow Times',
  ],
])('the site’s name stands %s', (_name, body, head, wanted) => expect(at(body, head).siteName).toBe(wanted));

it.each<[string, string, string, string]>([
  [
    'loses what a manual puts behind it',
    '<h1>Why not…<a class="headerlink" href="#x">¶</a></h1>',
    '<title>Why not… — larch 22.2.0 documentation</title>',
    'Why not…',
  ],
  [
    'is what stands on the page where it says more',
    '<h1>Package larch.hull.stream</h1>',
    '<title>larch.hull.stream (Larch SE 17)</title>',
    'Package larch.hull.stream',
  ],
  [
    'is what stands on the page where it says less',
    '<h1>Kohl, or what else there is to it</h1>',
    '<title>Salt: Kohl, or what else there is to it</title>',
    'Kohl, or what else there is to it',
  ],
  [
    'is not the sign of the site',
    '<h1 class="site-title">Tidewater</h1><h1>Larch or oak</h1>',
    '<title>Larch or oak | Tidewater</title>',
    'Larch or oak',
  ],
  [
    'is what is stated where no heading agrees',
    '<h1>Our journal</h1>',
    '<title>Larch or oak, and why</title>',
    'Larch or oak, and why',
  ],
  [
    'is a heading where the title only names the site',
    '<h1>The keel</h1>',
    '<title>Larch | Documentation</title><meta property="og:site_name" content="Larch">',
    'The keel',
  ],
])('a title %s', (_name, body, head, wanted) => expect(at(body, head).title).toBe(wanted));

it.each<[string, string, string[]]>([
  [
    'in the card below a post',
    '<div class="post-footer"><span class="post-author vcard">Posted by <span class="fn">Ada Quill (Tidewater)</span></span></div>',
    ['Ada Quill'],
  ],
  [
    'as the agency that it was taken over from',
    '<h1>Larch</h1><cite class="source">Northern Press</cite>',
    ['Northern Press'],
  ],
])('an author stands %s', (_name, body, wanted) => expect(at(body, '<title>Larch</title>').authors).toEqual(wanted));

it.each([
  [
    'DocBook',
    '<div class="NAVHEADER"><table><tr><th colspan="3">The Rigger’s Guide: All about rope</th></tr><tr><td><a href="a.html">Prev</a></td></tr></table></div>',
    'The Rigger’s Guide',
  ],
  [
    'Javadoc',
    '<header><div class="about-language"><strong>Rigging 17</strong></div><a href="../index.html">Overview</a></header>',
    'Rigging 17',
  ],
])('a manual is called what %s writes at its head', (_generator, head, name) => {
  const html = `<title>Knots</title><body>${head}<h1>Knots</h1><p>${'A knot holds by what pulls at it. '.repeat(20)}</p><table><tr><th>Part: one</th></tr></table>`;
  expect(extractArticle(html, 'https://docs.pages.example/r/knots.html').siteName).toBe(name);
});
