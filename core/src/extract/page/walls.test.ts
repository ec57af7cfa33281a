import { extractArticle } from '..';
import { asksForConsent, FOR_SUBSCRIBERS, NOT_THERE, SIGN_IN } from './walls';

/** Sentences as sites write them. Common practice. */
const SAID: readonly (readonly [string, (text: string) => boolean, readonly string[], readonly string[]])[] = [
  [
    'asks for consent',
    asksForConsent,
    [
      'We and our 94 partners store cookies on your device. Accept all. Manage options.',
      'Mit unseren Partnern speichern wir Cookies auf Ihrem Gerät. Alle akzeptieren',
      'Nos partenaires et nous déposons des cookies sur votre appareil. Tout accepter',
      'Nosotros y nuestros socios usamos cookies. Tu privacidad nos importa.',
      'Wij en onze partners slaan cookies op jouw apparaat op. Alles accepteren',
      'Vi och våra partner lagrar cookies på din enhet. Godkänn alla',
    ],
    [
      'Let the cookies cool on the rack; my partner ate four of them before they had.',
      'The device was built by two partners who valued their privacy less than their sleep.',
      'Personal data of patients may only be read with their consent, the court said.',
    ],
  ],
  [
    'asks to sign in',
    (text) => SIGN_IN.test(text),
    ['Please log in to view this page.', 'Jetzt anmelden', 'Se connecter', 'Iniciar sesión', 'Accedi', 'Logga in'],
    ['They logged in the forest for years.', 'He signed the letter in ink.'],
  ],
  [
    'says that the page is not there',
    (text) => NOT_THERE.test(text),
    [
      'Page not found',
      '404: gone fishing',
      'We can’t find the page you asked for',
      'This page doesn’t exist (any more).',
      'Diese Seite wurde leider nicht gefunden',
      'Page introuvable',
      'Página no encontrada',
      'Pagina non trovata',
      'Sidan kunde inte hittas',
      'Страница не найдена',
      '页面不存在',
    ],
    ['He could not find the place where the boat had lain.', 'On page 404 of the book a new life begins.'],
  ],
  [
    'says that all of it is for subscribers',
    (text) => FOR_SUBSCRIBERS.test(text),
    [
      'Subscribe to continue reading',
      'Already a subscriber? Sign in',
      'Weiterlesen mit dem Abo',
      'Article réservé aux abonnés',
      'Suscríbete para seguir leyendo',
      'Contenuto riservato agli abbonati',
      'Alleen voor abonnees',
      'Bli prenumerant för att läsa vidare',
    ],
    ['The paper lost a tenth of its subscribers.', 'To continue, readers need patience.', 'Abonnenten zahlen mehr.'],
  ],
];

describe.each(SAID)('%s', (_name, says, yes, no) => {
  it.each(yes)('%s', (text) => expect(says(text)).toBe(true));
  it.each(no)('not so: %s', (text) => expect(says(text)).toBe(false));
});

describe('what is said of a page’s arrival', () => {
  const sentence =
    'The ferry left at noon as it had for forty years, with a comma in it, and nobody thought anything of it.';
  const page = (body: string, head = '') =>
    extractArticle(
      `<!doctype html><html lang="en"><head><title>The ferry</title>${head}</head><body>${body}</body></html>`,
      'https://x.example/news/the-ferry',
    ).cameThrough;
  const codes = ({ signs }: ReturnType<typeof page>) => signs.map(({ code }) => code);
  const prose = (count: number) => `<article>${`<p>${sentence}</p>`.repeat(count)}</article>`;
  const wall =
    '<div class="box"><h3>Read the full story</h3><p>Subscribe now to keep reading. Already a subscriber? Log in</p></div>';

  it('a notice right behind a long text: there is more', () => {
    const said = page(prose(25) + wall);
    expect([said.verdict, codes(said)]).toEqual(['partial', ['paywall-notice']]);
  });

  it('the same notice far behind it, below what else there is to read: the text is whole', () => {
    const links = Array.from({ length: 40 }, (_, n) => `<li><a href="/${n}">Another story of the day, ${n}</a></li>`);
    expect(page(`${prose(25)}<ul>${links.join('')}</ul>${wall}`).verdict).toBe('whole');
  });

  it('a notice between two parts of what came through, said twice over: there is more; said once: it is whole', () => {
    const behind = `<h2>What readers say</h2>${`<p>${sentence.replace('ferry', 'boat')}</p>`.repeat(12)}`;
    const two = page(`<article>${`<p>${sentence}</p>`.repeat(25)}${wall}${behind}</article>`);
    expect([two.verdict, codes(two)]).toEqual(['partial', ['paywall-notice']]);
    const once = '<p>Our newsletter is for subscribers.</p>';
    expect(page(`<article>${`<p>${sentence}</p>`.repeat(25)}${once}${behind}</article>`).verdict).toBe('whole');
  });

  it('the beginning of a text that is for those who pay has come in part, whatever they are asked', () => {
    const form = '<form><input name="e"><input type="password" name="p"><button>Log in</button></form>';
    const notice = `<p>Subscribe now to keep reading what the harbour says of it.</p><p>Already a subscriber? Log in</p>`;
    const said = page(`<header>${form}</header><article>${`<p>${sentence}</p>`.repeat(3)}${notice}</article>`);
    expect([said.verdict, codes(said)]).toEqual(['partial', ['paywall-notice']]);
  });

  it.each([
    ['consent', '<h2>Your privacy matters to us</h2><p>We and our partners store cookies on your device.</p>'],
    ['error-page', '<h2>Oops</h2><p>The page you are looking for does not exist.</p>'],
  ])('a main part that is no more than a notice, among what stands around it: %s', (code, notice) => {
    const around = `<p>Thank you for posting a review! We value your input, and it will be here soon.</p>`.repeat(3);
    const said = page(`<main>${notice}</main><div>${around}</div>`);
    expect([said.verdict, codes(said)]).toEqual(['failed', [code]]);
    // Under a long text the same words are the text's own affair.
    expect(page(`<main>${notice}${prose(25)}</main>`).verdict).toBe('whole');
  });

  it('a place to sign in at the head of a short text is no wall; in its place it is one', () => {
    const form = '<form><input name="e"><input type="password" name="p"><button>Log in</button></form>';
    expect(page(`<header>${form}</header>${prose(4)}`).verdict).toBe('whole');
    const said = page(
      `<main><h2>Welcome back</h2><p>Please log in to your account to view this page.</p>${form}</main>`,
    );
    expect([said.verdict, codes(said)]).toEqual(['failed', ['sign-in']]);
  });

  it('the front page of the site in the place of a page of it', () => {
    const tiles = Array.from(
      { length: 14 },
      (_, n) =>
        `<div class="tile"><a href="/en/${n}"><h3>Another story, number ${n}</h3></a><p>What it is about.</p></div>`,
    ).join('');
    const front = '<link rel="canonical" href="https://x.example/en/">';
    const said = page(`<main>${tiles}</main>`, front);
    expect([said.verdict, codes(said)]).toEqual(['failed', ['another-page']]);
    const indexed = extractArticle(
      `<!doctype html><html lang="en"><head><title>Home</title>${front}</head><body><main>${tiles}</main></body></html>`,
      'https://x.example/news/2026/index.html',
    ).cameThrough;
    expect([indexed.verdict, codes(indexed)]).toEqual(['failed', ['another-page']]);
    // An article whose canonical address is wrong is still an article.
    const long = `<p>${sentence.repeat(4)}</p>`;
    expect(page(`<article>${long.repeat(3)}</article>`, front).verdict).toBe('whole');
  });

  it('cookies in a recipe are no notice', () => {
    expect(
      page(`<article><p>Bake the cookies for twelve minutes. Let them cool on the rack.</p></article>`).verdict,
    ).toBe('whole');
  });
});
