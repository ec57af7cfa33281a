import { marked } from 'marked';
import type { WebArticle } from './articles';
import {
  after,
  body,
  definitions,
  escape,
  iso,
  jsonLd,
  links,
  pagesOf,
  posts,
  type Publication,
  spelled,
} from './page-parts';

const picture = (article: WebArticle) =>
  article.picture
    ? `<figure><img src="/pictures/${article.picture}-1600.jpg" alt="${escape(article.caption)}" width="1600" height="1000"><figcaption>${escape(article.caption)}</figcaption></figure>`
    : '';

/** What the hall's pages state in schema.org's terms. */
function hallData(article: WebArticle): string {
  if (article.event)
    return jsonLd({
      '@context': 'https://schema.org',
      '@type': 'Event',
      name: article.title,
      startDate: '2026-12-21T16:00+00:00',
      endDate: '2026-12-22T07:00+00:00',
      eventStatus: 'https://schema.org/EventScheduled',
      location: { '@type': 'Place', name: 'The net loft', address: 'Herring Row, Skerrow' },
      organizer: { '@type': 'Organization', name: 'Skerrow Hall' },
      offers: { '@type': 'Offer', price: '1.00', priceCurrency: 'EUR' },
    });
  if (article.book)
    return jsonLd({
      '@context': 'https://schema.org',
      '@graph': [
        {
          '@type': 'Book',
          name: 'A Book of Small Harbours',
          author: { '@type': 'Person', name: 'Wilma Ostrander' },
          numberOfPages: 264,
          bookFormat: 'https://schema.org/Hardcover',
          publisher: 'Lee Shore Press',
          datePublished: '2026-03-01',
          aggregateRating: { '@type': 'AggregateRating', ratingValue: 4.6, ratingCount: 31 },
        },
        {
          '@type': 'Review',
          headline: article.title,
          author: { '@type': 'Person', name: article.author },
          datePublished: iso(article),
        },
      ],
    });
  return jsonLd({
    '@context': 'https://schema.org',
    '@type': 'VideoObject',
    name: 'A seam from end to end',
    duration: 'PT11M20S',
    uploadDate: iso(article).slice(0, 10),
    interactionStatistic: {
      '@type': 'InteractionCounter',
      interactionType: 'https://schema.org/WatchAction',
      userInteractionCount: 412,
    },
  });
}

/** Publications that each show a kind of page which the others do not. */
export const KINDS: Publication[] = [
  {
    host: 'fathom',
    name: 'Fathom',
    path: (slug) => `/read/${slug}`,
    page: (article, more, page) => {
      const pages = pagesOf(article);
      const at = `/read/${article.slug}`;
      const links2 = pages
        .map((_, index) => `<a href="${index === 0 ? at : `${at}/${index + 1}`}">${index + 1}</a>`)
        .join(' ');
      const next = page < pages.length ? `<a class="next" rel="next" href="${at}/${page + 1}">Next page</a>` : '';
      return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(article.title)}${page > 1 ? ` (page ${page})` : ''} | Fathom</title>
<meta property="og:title" content="${escape(article.title)}"><meta property="og:site_name" content="Fathom"><link rel="canonical" href="${at}"><link rel="license" href="https://licence.example/by/4.0/">
${jsonLd({ '@context': 'https://schema.org', '@type': 'Article', headline: article.title, author: article.author.split(' and ').map((name) => ({ '@type': 'Person', name })), datePublished: iso(article), dateModified: iso(article), wordCount: article.markdown.split(/\s+/).length, publisher: { '@type': 'Organization', name: 'Fathom' } })}</head><body>
<header class="site-header"><a href="/">Fathom</a><nav><a href="/sea">Sea</a> <a href="/shore">Shore</a></nav></header>
<main><article><h1>${escape(article.title)}</h1><p class="intro">${escape(article.standfirst)}</p><p class="byline">By ${escape(article.author)} · ${spelled(article)}</p>
${page === 1 ? picture(article) : ''}${marked.parse(pages[page - 1] ?? '', { async: false })}</article>
<div class="pagination">${links2} ${next}</div></main><aside class="related"><h2>More from Fathom</h2><ul>${links(more)}</ul></aside></body></html>`;
    },
  },
  {
    host: 'desk',
    name: 'The Harbour Desk',
    path: (slug) => `/questions/${slug}`,
    page: (article, more) => {
      const [question, ...answers] = posts(article);
      const by = (who: string) =>
        `<div class="card" itemprop="author" itemscope itemtype="https://schema.org/Person"><a href="/people/1" itemprop="name">${escape(who)}</a></div>`;
      return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(article.title)} - The Harbour Desk</title><meta property="og:site_name" content="The Harbour Desk"></head>
<body itemscope itemtype="https://schema.org/QAPage"><div class="topbar"><a href="/">The Harbour Desk</a> <a href="/ask">Ask</a> <a href="/tags">Tags</a></div>
<div id="content" itemprop="mainEntity" itemscope itemtype="https://schema.org/Question"><h1 itemprop="name">${escape(article.title)}</h1>
<div class="question"><div class="votecell">14</div><div class="postcell"><div itemprop="text">${question?.html ?? ''}</div>${by(question?.who ?? '')}</div></div>
<h2>${answers.length} answers</h2>
${answers.map(({ who, html, isChosen }) => `<div class="answer" itemprop="${isChosen ? 'acceptedAnswer' : 'suggestedAnswer'}" itemscope itemtype="https://schema.org/Answer"><div class="votecell">7</div><div class="postcell"><div itemprop="text">${html}</div><div class="tools"><a href="#">share</a> <a href="#">flag</a></div>${by(who)}</div></div>`).join('')}</div>
<div id="sidebar"><h4>Related questions</h4><ul>${links(more)}</ul></div></body></html>`;
    },
  },
  {
    host: 'manual',
    name: 'Ebbtide manual',
    path: (slug) => `/docs/${slug}`,
    page: (article, more) =>
      `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(article.title)} — Ebbtide manual</title><meta property="og:site_name" content="Ebbtide manual"></head><body class="docs"><nav class="docs-nav"><ul><li><a href="/docs">Start</a></li>${links(more)}<li><a href="/docs/constants">Where the constants come from</a></li><li><a href="/docs/table">Printing a table</a></li></ul></nav>
<div class="docs-main"><ol class="breadcrumbs"><li><a href="/docs">Manual</a></li><li>${escape(article.title)}</li></ol><article class="markdown-body"><h1>${escape(article.title)}<a class="headerlink" href="#">¶</a></h1><p>${escape(article.standfirst)}</p>${definitions(body(article))}</article><div class="page-tools"><a href="/edit">Edit this page</a> <span>Was this helpful?</span> <button>Yes</button><button>No</button></div></div>
<aside class="toc"><h5>On this page</h5><ul><li><a href="#a">The format</a></li></ul></aside></body></html>`,
  },
  {
    host: 'almanac',
    name: 'The Skerrow Almanac',
    path: (slug) => `/wiki/${slug}`,
    page: (article) =>
      `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(article.title)} - The Skerrow Almanac</title><meta property="og:site_name" content="The Skerrow Almanac">${article.author ? `<meta name="author" content="${escape(article.author)}">` : ''}</head><body><div id="panel" class="navigation"><a href="/">Front page</a><a href="/random">Any page</a><form><input name="q"></form></div>
<div id="content"><h1 id="firstHeading">${escape(article.title)}</h1><div id="bodyContent"><div class="hatnote">For other towers, see <a href="/wiki/towers">Towers</a>.</div>
<div class="toc"><h2>Contents</h2><ul><li><a href="#h">History</a></li><li><a href="#n">Notes</a></li></ul></div>${picture(article)}
${body(article).replace(/<\/h2>/g, '<span class="editsection">[<a href="/edit">edit</a>]</span></h2>')}
<div class="catlinks categories">Categories: <a href="/c/sea">Sea</a> | <a href="/c/skerrow">Skerrow</a></div></div></div><footer>The text may be used by anyone who says where it is from. <a rel="license" href="https://licence.example/by-sa/4.0/">Licence</a></footer></body></html>`,
  },
  {
    host: 'jottings',
    name: 'Jottings',
    path: (slug) => `/${slug}`,
    page: (article, more) =>
      `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(article.title)} · Jottings</title></head><body><header><h2><a href="/">Jottings</a></h2><p>by Ines Tavora-Holm</p></header><section class="note h-entry"><h1 class="p-name">${escape(article.title)}</h1><div class="e-content">${body(article)}</div><p class="meta"><time datetime="${iso(article)}">${spelled(article)}</time></p></section><nav class="pager"><ul>${links(more)}</ul></nav></body></html>`,
  },
  {
    host: 'panes',
    name: 'Panes',
    path: (slug) => `/series/${slug}`,
    page: (article) =>
      `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(article.title)} / Panes</title><meta property="og:site_name" content="Panes"><meta name="author" content="${escape(article.author)}"><meta property="article:published_time" content="${iso(article)}"></head><body><div class="bar"><a href="/">Panes</a></div><main class="series"><h1>${escape(article.title)}</h1><p class="dek">${escape(article.standfirst)}</p><div class="slides">${body(article)}</div></main><div class="share-row"><a href="#">Share this series</a></div></body></html>`,
  },
  {
    host: 'hall',
    name: 'Skerrow Hall',
    path: (slug) => `/notices/${slug}`,
    page: (article) =>
      `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(article.title)} | Skerrow Hall</title><meta property="og:site_name" content="Skerrow Hall">${article.author ? `<meta name="author" content="${escape(article.author)}">` : ''}<meta name="dcterms.date" content="${iso(article).slice(0, 10)}">${hallData(article)}</head><body><header><a href="/">Skerrow Hall</a></header><main><h1>${escape(article.title)}</h1>${picture(article)}${body(article)}</main><iframe src="https://count.example/like?page=1" width="90" height="20"></iframe><footer>The hall is open when the lamp is lit.</footer></body></html>`,
  },
  {
    host: 'longshore',
    name: 'Longshore',
    path: (slug) => `/long/${slug}`,
    page: (article, more) =>
      `<!doctype html><html lang="en-GB"><head><meta charset="utf-8"><title>${escape(article.title)} – Longshore</title><meta property="og:title" content="${escape(article.title)}"><meta property="og:site_name" content="Longshore"><meta property="og:image" content="/pictures/${article.picture}-1600.jpg"><meta name="author" content="${escape(article.author)}"><meta property="article:published_time" content="${iso(article)}"><meta name="description" content="${escape(article.standfirst)}"></head><body><div class="skip"><a href="#text">To the text</a></div><header class="banner"><a href="/">Longshore</a><p>One long thing, when there is one.</p><button>Menu</button></header>
<main id="text"><article><header><h1>${escape(article.title)}</h1><p class="standfirst">${escape(article.standfirst)}</p><p class="byline">${escape(article.author)} <time datetime="${iso(article)}">${spelled(article)}</time></p></header>${picture(article)}${after(body(article), 9, `<aside class="support"><p>Longshore is paid for by those who read it. <a href="/support">Become one of them</a></p></aside>`)}</article></main>
<section class="next-up"><h2>Also long</h2><ul>${links(more)}</ul></section><footer><p>Longshore, the old smokehouse, Skerrow</p></footer></body></html>`,
  },
  {
    host: 'glass',
    name: 'Glass & Wire',
    path: (slug) => `/p/${slug}`,
    page: (article) => {
      const paragraphs = article.markdown.split('\n\n').map((text) => text.replace(/[*_]/g, ''));
      const data =
        article.script === 'linked'
          ? jsonLd({
              '@context': 'https://schema.org',
              '@type': 'BlogPosting',
              headline: article.title,
              author: { '@type': 'Person', name: article.author },
              datePublished: iso(article),
              articleBody: paragraphs.join('\n\n'),
            })
          : `<script>window.__PAGE__ = ${JSON.stringify({ route: '/p', user: null, post: { title: article.title, by: article.author, blocks: paragraphs.map((text) => ({ type: 'paragraph', text })) } }).replaceAll('</', '<\\/')};</script>`;
      return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(article.title)} | Glass &amp; Wire</title><meta name="author" content="${escape(article.author)}"><meta property="og:site_name" content="Glass &amp; Wire"><meta property="article:published_time" content="${iso(article)}">${data}</head><body><div id="root">Loading…</div><script src="/app.js"></script></body></html>`;
    },
  },
  {
    host: 'ledger',
    name: 'The Ledger',
    path: (slug) => `/essays/${slug}`,
    page: (article, more) =>
      `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(article.title)} | The Ledger</title>${jsonLd({ '@context': 'https://schema.org', '@type': 'NewsArticle', headline: article.title, author: { '@type': 'Person', name: article.author }, datePublished: iso(article), isAccessibleForFree: false, wordCount: 2150, publisher: { '@type': 'Organization', name: 'The Ledger' } })}</head><body><header><a href="/">The Ledger</a></header><article><h1>${escape(article.title)}</h1><p class="standfirst">${escape(article.standfirst)}</p>${picture(article)}${body(article)}</article><div class="paywall"><h2>Subscribe to continue reading</h2><p>Already a subscriber? <a href="/in">Sign in</a>.</p><button>From 4 a month</button></div><aside class="most-read"><ul>${links(more)}</ul></aside></body></html>`,
  },
  {
    host: 'inselblatt',
    name: 'Inselblatt',
    path: (slug) => `/texte/${slug}`,
    page: (article) =>
      `<!doctype html><html lang="${article.language || 'de'}"><head><meta charset="utf-8"><title>${escape(article.title)} – Inselblatt</title><meta property="og:site_name" content="Inselblatt"></head><body><div class="leiste"><a href="/">Inselblatt</a> <a href="/abo">Abo</a></div><div class="artikel"><h1>${escape(article.title)}</h1><p class="vorspann">${escape(article.standfirst)}</p><p class="autor">${article.language === 'fr' ? 'Par' : 'Von'} ${escape(article.author)}, ${article.publishedAt.toLocaleDateString(article.language || 'de', { day: 'numeric', month: 'long', year: 'numeric' })}</p>${picture(article)}${body(article)}</div><div class="kommentare"><h3>Kommentare (1)</h3><p>Schön.</p></div></body></html>`,
  },
  {
    host: 'quay',
    name: 'Quayside',
    path: (slug) => `/amp/${slug}`,
    page: (article, more) =>
      `<!doctype html><html ⚡ lang="en"><head><meta charset="utf-8"><title>${escape(article.title)} | Quayside</title><link rel="canonical" href="/${article.slug}"><meta property="og:site_name" content="Quayside"><style amp-boilerplate>body{visibility:hidden}</style>${jsonLd({ '@context': 'https://schema.org', '@type': 'NewsArticle', headline: article.title, datePublished: iso(article), author: [{ name: article.author }] })}</head><body><amp-sidebar layout="nodisplay"><ul>${links(more)}</ul></amp-sidebar><header>Quayside</header><article><h1>${escape(article.title)}</h1><p>${escape(article.standfirst)}</p><amp-img src="/pictures/${article.picture}-1600.jpg" srcset="/pictures/${article.picture}-640.jpg 640w, /pictures/${article.picture}-1600.jpg 1600w" width="1600" height="1000" layout="responsive" alt="${escape(article.caption)}"></amp-img>${body(article)}<amp-ad width="300" height="250" type="x"></amp-ad></article></body></html>`,
  },
  {
    host: 'chaoxin',
    name: '潮信',
    path: (slug) => `/wenzhang/${slug}`,
    page: (article) =>
      `<!doctype html><html lang="zh-Hans"><head><meta charset="utf-8"><title>${article.title}_潮信</title><meta property="og:site_name" content="潮信"><meta property="og:title" content="${article.title}"><meta name="author" content="${article.author}"></head><body><div class="daohang"><a href="/">首页</a><a href="/hai">海</a><a href="/dao">岛</a></div><div class="wenzhang"><h1>${article.title}</h1><p class="xinxi">${article.publishedAt.getUTCFullYear()}年${article.publishedAt.getUTCMonth() + 1}月${article.publishedAt.getUTCDate()}日</p><p>${article.standfirst}</p>${picture(article)}${body(article)}</div><div class="related"><p>相关阅读</p></div></body></html>`,
  },
];
