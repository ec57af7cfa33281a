// npm run bench -- came-through: is what is said of a page's arrival right? On the development pages as they are, and on copies
// of them that were damaged as pages are on the way: the text cut behind its beginning, a wall in its place, the frame without
// its text. Walls are written in the page's language where one of ours is in it, else in English.
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { JSDOM, VirtualConsole } from 'jsdom';
import { extractArticle } from '../core/src/extract/article.ts';
import { builtPages, wordsOf } from './development-pages.mjs';

const here = import.meta.dirname;
const rules = (name) => JSON.parse(readFileSync(path.join(here, 'pages', name), 'utf8'));
const roots = new Map([
  ...rules('modern.json').pages.map((page) => [`modern/${page.id}`, page.root]),
  ...rules('news.json').templates.map((template) => [template.host, template.root]),
]);

/** What stands in the place of a text, as sites word it. Common practice; written for this bench, not taken from the rules. */
const WALLS = {
  consent: {
    en: '<h2>Your privacy matters to us</h2><p>We and our 812 partners store and access information on a device, such as cookies, and process personal data. You can change your choices at any time.</p><button>Accept all</button><button>Manage options</button>',
    de: '<h2>Willkommen zurück</h2><p>Besuchen Sie uns wie gewohnt mit Werbung und Tracking. Wir und unsere 184 Partner verwenden Cookies und ähnliche Techniken, um Informationen auf Ihrem Gerät zu speichern.</p><button>Alle akzeptieren</button><button>Einstellungen</button>',
    fr: '<h2>Le respect de votre vie privée est notre priorité</h2><p>Avec nos partenaires, nous utilisons des cookies pour stocker des informations sur votre appareil et y accéder. Vous pouvez retirer votre consentement à tout moment.</p><button>Tout accepter</button><button>Paramétrer</button>',
    es: '<h2>Tu privacidad nos importa</h2><p>Nosotros y nuestros socios usamos cookies para almacenar información en un dispositivo y tratar datos personales. Puedes cambiar tus preferencias cuando quieras.</p><button>Aceptar todo</button><button>Configurar</button>',
    it: '<h2>La tua privacy è importante</h2><p>Noi e i nostri partner archiviamo informazioni su un dispositivo, come i cookie, e trattiamo dati personali. Puoi revocare il consenso in qualsiasi momento.</p><button>Accetta tutto</button><button>Preferenze</button>',
    nl: '<h2>Jouw privacy is belangrijk</h2><p>Wij en onze partners slaan cookies op jouw apparaat op en verwerken persoonsgegevens. Je kunt je toestemming altijd intrekken.</p><button>Alles accepteren</button><button>Instellingen</button>',
    sv: '<h2>Vi värnar om din integritet</h2><p>Vi och våra partner lagrar cookies på din enhet och behandlar personuppgifter. Du kan när som helst ändra dina val.</p><button>Godkänn alla</button><button>Inställningar</button>',
  },
  'sign-in': {
    en: '<h2>Welcome back</h2><p>Please log in to your account to view this page.</p><form><label>E-mail <input name="e"></label><label>Password <input type="password" name="p"></label><button>Log in</button></form><p>No account yet? Create one for free.</p>',
    de: '<h2>Anmelden</h2><p>Bitte melden Sie sich an, um diesen Inhalt zu sehen.</p><form><label>E-Mail <input name="e"></label><label>Passwort <input type="password" name="p"></label><button>Anmelden</button></form><p>Noch kein Konto? Jetzt registrieren.</p>',
    fr: '<h2>Connexion</h2><p>Identifiez-vous pour lire cette page.</p><form><label>Adresse <input name="e"></label><label>Mot de passe <input type="password" name="p"></label><button>Se connecter</button></form>',
    es: '<h2>Acceso</h2><p>Entra en tu cuenta para ver esta página.</p><form><label>Correo <input name="e"></label><label>Contraseña <input type="password" name="p"></label><button>Iniciar sesión</button></form>',
    it: '<h2>Accedi</h2><p>Per vedere questa pagina entra nel tuo account.</p><form><label>E-mail <input name="e"></label><label>Password <input type="password" name="p"></label><button>Accedi</button></form>',
  },
  'soft 404': {
    en: '<h1>Oops!</h1><p>We can’t seem to find the page you’re looking for. It may have been moved or deleted. Try a search, or go back to our home page.</p>',
    de: '<h1>Seite nicht gefunden</h1><p>Die gewünschte Seite existiert leider nicht oder nicht mehr. Bitte nutzen Sie die Suche.</p>',
    fr: '<h1>Page introuvable</h1><p>La page que vous cherchez n’existe pas ou n’existe plus. Retournez à la page d’accueil.</p>',
    es: '<h1>Página no encontrada</h1><p>La página que busca no existe o ha cambiado de dirección. Vuelva al inicio.</p>',
    it: '<h1>Pagina non trovata</h1><p>La pagina che cerchi non esiste più o è stata spostata. Torna alla home.</p>',
    sv: '<h1>Sidan kunde inte hittas</h1><p>Sidan du söker finns inte eller har flyttats. Gå till startsidan.</p>',
  },
  'first paragraphs': {
    en: '<div class="box"><h3>Keep reading with a subscription</h3><p>This article is for subscribers. Subscribe now to read the full story.</p><a href="/s">See offers</a><p>Already a subscriber? Log in</p></div>',
    de: '<div class="box"><h3>Weiterlesen mit Abo</h3><p>Dieser Artikel ist für Abonnenten. Jetzt testen und sofort weiterlesen.</p><a href="/s">Angebote</a><p>Bereits Abonnent? Anmelden</p></div>',
    fr: '<div class="box"><h3>Article réservé aux abonnés</h3><p>Il vous reste 75 % de cet article à lire. La suite est réservée aux abonnés.</p><a href="/s">Voir les offres</a><p>Déjà abonné ? Se connecter</p></div>',
    es: '<div class="box"><h3>Contenido exclusivo para suscriptores</h3><p>Suscríbete para seguir leyendo este artículo.</p><a href="/s">Ver ofertas</a><p>¿Ya eres suscriptor? Inicia sesión</p></div>',
    it: '<div class="box"><h3>Contenuto riservato agli abbonati</h3><p>Abbonati per continuare a leggere questo articolo.</p><a href="/s">Le offerte</a><p>Sei già abbonato? Accedi</p></div>',
    sv: '<div class="box"><h3>Artikeln är låst</h3><p>Bli prenumerant för att läsa hela artikeln.</p><a href="/s">Se erbjudanden</a><p>Redan prenumerant? Logga in</p></div>',
  },
};
/** A wall in a part that the page calls its main one, and the same in a box without a name. */
const BOXED = ', in a box without a name';
const WANTED = {
  consent: ['failed', ['consent']],
  [`consent${BOXED}`]: ['failed', ['consent']],
  'sign-in': ['failed', ['sign-in']],
  [`sign-in${BOXED}`]: ['failed', ['sign-in']],
  'soft 404': ['failed', ['error-page']],
  [`soft 404${BOXED}`]: ['failed', ['error-page']],
  'script shell': ['failed', ['script-built']],
  'first paragraphs': ['partial', ['paywall', 'paywall-stated', 'paywall-notice', 'shorter-than-stated']],
  'front page of another language': ['failed', ['another-page']],
};

/** Where the truth of a page stands: of the first selector that finds something, or (modern) of all. */
function rootsIn(document, page) {
  const of = (selector) => [...document.querySelectorAll(selector)];
  const all =
    page.set === 'modern'
      ? (roots.get(page.id) ?? []).flatMap(of)
      : ((roots.get(page.template) ?? []).map(of).find((found) => found.length > 0) ?? []);
  return all
    .filter((each) => !all.some((other) => other !== each && other.contains(each)))
    .sort((a, b) => (a.compareDocumentPosition(b) & 4 ? -1 : 1));
}

/** Pages state in their data how long they are, and what they say; a page that was walled off by its server does not. */
function withoutData(document) {
  for (const script of document.querySelectorAll('script'))
    if (!/ld\+json/.test(script.type) || /articleBody|recipeIngredient/.test(script.textContent)) script.remove();
}

function damaged(page, kind) {
  const { window } = new JSDOM(page.html, { url: page.url, virtualConsole: new VirtualConsole() });
  const html = damagedDocument(window.document, page, kind);
  window.close();
  return html;
}

function damagedDocument(document, page, kind) {
  const found = rootsIn(document, page);
  if (found.length === 0 || !document.body) return null;
  if (kind.startsWith('front page') && new URL(page.url).pathname === '/') return null;
  const language = (page.lang ?? 'en').slice(0, 2);
  withoutData(document);
  if (kind === 'script shell') {
    document.body.innerHTML = `<div id="root"></div><script>${'window.__chunk__=function(e,t,n){return e(t,n)};'.repeat(400)}</script>`;
    return document.documentElement.outerHTML;
  }
  if (kind === 'front page of another language') {
    const front = `${new URL(page.url).origin}/en/`;
    const tiles = Array.from(
      { length: 14 },
      (_, n) =>
        `<div class="tile"><a href="/en/${n}"><h3>Another story of the day, number ${n}</h3></a><p>What it is about, in a line.</p></div>`,
    );
    return `<!doctype html><html lang="en"><head><title>Home</title><link rel="canonical" href="${front}"><meta property="og:url" content="${front}"><meta property="og:type" content="website"></head><body><header><a href="/en/">Home</a></header><main>${tiles.join('')}</main></body></html>`;
  }
  const walls = WALLS[kind.replace(BOXED, '')];
  const wall = walls[language] ?? walls.en;
  if (kind !== 'first paragraphs') {
    // What a server sends instead has the frame of the site, and the wall.
    const frame = [
      ...document.querySelectorAll('header, nav, footer, [class*=header], [class*=footer], [id*=header], [id*=footer]'),
    ]
      .filter((each) => !found.some((root) => each.contains(root) || root.contains(each)))
      .filter((each, _, all) => !all.some((other) => other !== each && other.contains(each)));
    for (const heading of frame.flatMap((each) => [...each.querySelectorAll('h1')])) heading.remove();
    const [head, foot] = [frame.slice(0, 2), frame.slice(2, 4)].map((each) =>
      each.map(({ outerHTML }) => outerHTML).join(''),
    );
    const tag = kind.endsWith(BOXED) ? 'div' : 'main';
    document.body.innerHTML = `${head}<${tag}>${wall}</${tag}>${foot}`;
    if (kind.startsWith('soft 404')) document.title = 'Page';
    return document.documentElement.outerHTML;
  }
  // All behind the first fifth of the words goes.
  let left = wordsOf(found.map((root) => root.textContent).join(' ')).length / 5;
  const cut = (node) => {
    for (const child of [...node.childNodes]) {
      if (left <= 0) child.remove();
      else if (child.nodeType === 3) left -= wordsOf(child.data).length;
      else cut(child);
    }
  };
  found.forEach(cut);
  const last = found.findLast((root) => root.isConnected && root.textContent.trim() !== '') ?? found[0];
  last.insertAdjacentHTML(/^(?:TD|BODY)$/.test(last.tagName) ? 'beforeend' : 'afterend', wall);
  return document.documentElement.outerHTML;
}

const pages = builtPages();
if (pages.length === 0) throw new Error('npm run bench -- judge builds the pages first');
const rows = new Map();
const count = (kind, ok, line) => {
  const row = rows.get(kind) ?? { right: 0, all: 0 };
  row.all++;
  if (ok) row.right++;
  else if (process.argv.includes('--each')) console.log(`${kind}: ${line}`);
  rows.set(kind, row);
};
let flattered = 0;
for (const page of pages) {
  // A turn of the loop lets go of the windows that were closed.
  await new Promise((resolve) => void setImmediate(resolve));
  const size = wordsOf(page.gold).length;
  const recallOf = (text) => {
    const left = new Map();
    for (const word of wordsOf(page.gold)) left.set(word, (left.get(word) ?? 0) + 1);
    let found = 0;
    for (const word of wordsOf(text))
      if ((left.get(word) ?? 0) > 0) {
        left.set(word, left.get(word) - 1);
        found++;
      }
    return found / size;
  };
  const look = (kind, html, isRight) => {
    const { cameThrough, text } = extractArticle(html, page.url);
    const recall = recallOf(text);
    if (cameThrough.verdict === 'whole' && recall < 0.8) flattered++;
    count(
      kind,
      isRight(cameThrough, recall),
      `${page.id} ${cameThrough.verdict} ${cameThrough.signs.map(({ code }) => code).join(' ')} (${recall.toFixed(2)} of the text) ${text.slice(0, 60).replace(/\n/g, ' ')}`,
    );
  };
  look('as it is', page.html, ({ verdict }, recall) => (verdict === 'whole') === recall >= 0.8);
  for (const [kind, [verdict, codes]] of Object.entries(WANTED)) {
    const html = damaged(page, kind);
    if (html === null) continue;
    look(kind, html, (said) => said.verdict === verdict && said.signs.some(({ code }) => codes.includes(code)));
  }
}
console.log('| page | right | of |\n|---|---|---|');
let [right, all] = [0, 0];
for (const [kind, row] of rows) {
  console.log(`| ${kind} | ${row.right} | ${row.all} |`);
  right += row.right;
  all += row.all;
}
console.log(
  `| all | ${right} (${((100 * right) / all).toFixed(1)} %) | ${all} |\n\nCalled whole with less than 80 % of the text: ${flattered}`,
);
