/**
 * What stands in the place of a text, told by its words in the languages of most of the web. Common practice; no site is
 * named. Kept as lists of beginnings, so that inflected forms are found too.
 */

const any = (...words: string[]) => new RegExp(words.join('|'), 'iu');

const COOKIES = /\bcookies?\b|クッキー|файл\p{L}* cookie/iu;
const ACCEPT =
  /accept (?:all|cookies)|akzeptieren|tout accepter|aceptar (?:todo|todas|y)|aceitar tud|accetta tutt|alles accepteren|godkänn alla|godta alle|accepter alle|zaakceptuj|принять все|全部接受|すべて(?:同意|許可)/iu;
/** What a consent notice speaks of; one of them alone says nothing. */
const CONSENT_SUBJECTS = [
  COOKIES,
  ACCEPT,
  /\bpartners?\b|\bpartner[nei]?\b|\bpartenaires\b|\bsocios\b|\bparceiros\b|партн[её]р/iu,
  /privacy|privatsphäre|datenschutz|vie privée|privacidad|privacidade|integritet|privatliv|personvern|prywatnoś|конфиденциальн|隐私|プライバシー/iu,
  /\bconsent|zustimm|einwillig|consentement|consentimiento|consentimento|\bconsenso|toestemming|samtyck|samtykke|zgod[aęy]|соглас[ие]|同意/iu,
  /personal data|personenbezogen|données (?:à caractère )?personnel|datos personales|dados pessoais|dati personali|persoonsgegevens|personuppgifter|personopplysning|persondata|dane osobowe|персональн|个人信息|個人情報/iu,
  /\bdevice\b|\bgerät|\bappareil|\bdispositivo|\bapparaat|\benhet|urządzeni|устройств|设备|デバイス/iu,
  /manage (?:options|preferences|choices)|change your choices|einstellungen|paramétrer|configurar|preferenze|voorkeuren|instellingen|inställningar|indstillinger|innstillinger|ustawienia/iu,
];
const CONSENT_NEEDS = 3;

/** True for words that are about being asked for consent. */
export function asksForConsent(text: string): boolean {
  return (
    (COOKIES.test(text) || ACCEPT.test(text)) &&
    CONSENT_SUBJECTS.filter((subject) => subject.test(text)).length >= CONSENT_NEEDS
  );
}

/** Being asked to sign in. */
export const SIGN_IN = any(
  '\\b(?:log|sign) ?in\\b',
  '\\banmeld(?:en|ung)\\b|\\beinloggen\\b',
  'se connecter|identifiez-vous|\\bconnexion\\b',
  'inici(?:ar|a) sesión|\\bacceder\\b|entra en tu cuenta',
  '\\baccedi\\b|\\bentra nel tuo account',
  '\\binloggen\\b|\\blogga in\\b|\\blogg? inn?\\b|\\blog ind\\b',
  'iniciar sessão|\\bentrar\\b|zaloguj|\\bвойти\\b|giriş yap|登录|登入|ログイン|로그인|تسجيل الدخول',
);

/** The page is not there, said in its headline or its first sentences. */
export const NOT_THERE = any(
  '\\b(?:error|http) ?(?:404|410|403|500)\\b|^\\W{0,3}(?:404|403|410|500)\\b',
  "\\b(?:page|article|content) (?:was |is |has been |could |can )?(?:not|n[o’']t|cannot|no longer)(?: be)? (?:found|available|exist)",
  "(?:can[’']?t|cannot|could(?: not|n[’']t)) (?:seem to )?find (?:the|that|this) page",
  "page (?:you(?:[’']re| are| were) looking for|does not exist|doesn[’']t exist|has been (?:removed|moved|deleted))",
  '\\bnot found\\b',
  'seite (?:konnte )?(?:wurde )?(?:leider )?nicht gefunden|seite existiert (?:leider )?nicht|seite nicht (?:mehr )?vorhanden',
  "page introuvable|page (?:que vous (?:cherchez|recherchez|demandez) )?n[’']existe (?:pas|plus)|page demandée n",
  'página no (?:encontrada|existe|disponible)|página que (?:busca|buscas) no|no (?:se ha )?encontrado la página',
  'página não (?:encontrada|existe)|pagina non (?:trovata|esiste|disponibile)|pagina che (?:cerchi|stai cercando) non',
  'pagina (?:is )?niet gevonden|pagina bestaat niet',
  'sidan (?:kunde )?(?:inte|ej) hitta|sidan (?:du söker )?finns inte|siden (?:blev |ble )?ikke funn?e[tn]|siden findes ikke|sivua ei löydy',
  'nie znaleziono strony|strona nie (?:istnieje|została znaleziona)|stránka nenalezena|az oldal nem található|sayfa bulunamadı',
  'страница не найдена|не найдено|сторінку не знайдено|页面不存在|找不到(?:该|您|此)?.{0,6}页|頁面不存在|ページが見つかりません|페이지를 찾을 수 없',
);

/** All of it is for those who pay, said of this text. */
export const FOR_SUBSCRIBERS = any(
  'subscribe (?:now )?to (?:continue|read|keep|unlock)|(?:for|to) subscribers\\b|subscribers? only|only (?:for )?subscribers|already a (?:subscriber|member)\\?|keep reading with|to continue reading|(?:read|unlock) (?:the full|this) (?:story|article)|start your (?:free )?trial|remaining (?:free )?articles?|free articles? (?:left|remaining)',
  '(?:weiter)?lesen (?:sie )?(?:mit|im) .{0,12}abo\\b|(?:für|nur) (?:unsere )?abonnent|bereits (?:abonnent|kunde)|abonnieren,? um (?:weiter|den)|jetzt (?:testen|abonnieren) und (?:sofort )?(?:weiter)?lesen|exklusiv für abonnent',
  'réservée?s? aux abonnés|déjà abonnée?\\b|il vous reste \\d{1,3} ?%|abonnez-vous pour (?:lire|continuer|accéder)|la suite est réservée',
  '(?:exclusivo|solo) para suscriptores|suscríb(?:ete|ase) para (?:seguir|leer|continuar)|ya eres suscriptor',
  'riservat[oaie] agli abbonati|abbonati per (?:continuare|leggere)|sei già abbonato',
  '(?:exclusivo|só) para assinantes|assine para (?:ler|continuar)|já é assinante',
  '(?:alleen|exclusief) voor abonnees|al abonnee|word abonnee om|neem een abonnement om',
  'bli prenumerant för att|redan prenumerant|artikeln är låst|(?:endast|bara) för prenumeranter|(?:kun|bare) for abonnenter|allerede abonnent|bli abonnent for å|bliv abonnent for at',
  'tylko dla (?:prenumeratorów|subskrybentów)|только для подписчиков|会員限定|有料会員|续费阅读|付费阅读|订阅(?:后|以)(?:继续)?阅读|구독자 전용',
);
