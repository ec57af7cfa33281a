/** Short lines that belong to the page and not to its text, told by what they say. Common practice of many sites. */

/** Labels and invitations that end up between paragraphs. Matched against a whole short block. */
const CLUTTER =
  /^(?:[-–—|>»•★☆\s]*)(?:advertisements?|sponsored(?: content)?|anzeige|werbung|publicité|publicidad|share(?: this)?(?: article| story| page)?(?: on:? .{0,120})?|follow this topic|more commentary|(?:read|check out) (?:more|next|also|other)\b.{0,120}|next (?:on|in|up)\b[^.!?:]{0,40}:.{0,120}|(?:was|is|did you find|do you find) this (?:page|article|story|answer|content|information) (?:helpful|useful|interesting)\b.{0,80}|related(?: (?:articles?|stories|story|links?|topics?|posts?|content|reading|coverage|news|videos?|pages?))?(?:\s*:.{0,120})?|see also:.{0,120}|continue reading.{0,80}|story continues below.{0,60}|article continues below.{0,60}|sign up (?:for|to) .{0,120}|subscribe (?:to|now|today).{0,120}|follow (?:us|@?\w+) on .{0,100}|print(?: this)?(?: page| article| story)?|e-?mail(?: this)?(?: page| article| story| to a friend)?|tweet|like|pin (?:it|this)(?: recipe| post)?(?: (?:for later|to)\b.{0,60})?!?|(?:this|our) (?:post|page|article|site|guide|recipe)s? (?:may |might )?(?:contains?|includes?|uses?) affiliate links?\b.{0,180}|(?:dieser (?:beitrag|artikel)|diese seite) enthält (?:affiliate|werbe|partner)-?links?\b.{0,180}|did you (?:make|try|cook|bake) this(?: (?:recipe|dish)\?|\?.{10}).{0,160}|jump to (?:the )?(?:recipe|video|comments)|did (?:this|the)(?: page| article| answer)? help(?: you)?\??|(?:are you )?(?:enjoy(?:ing|ed)|like|liked) (?:this|what you)[^.?!]{0,60}\?.{0,160}|if you (?:enjoy(?:ed)?|liked?) (?:this|what)[^.?!]{0,60}, (?:please |you |do |then )*(?:consider|share|tell|subscribe|support|join|sign|follow|buy|leave)\b.{0,160}|\d[\d,.]* (?:accesses|citations|downloads|views|shares|altmetric)|(?:you are|you['’]re) (?:reading|viewing|looking at) (?:the (?:docs|documentation)|an? (?:old|older|outdated|archived))\b.{0,160}|listen (?:and subscribe )?(?:on|in|via|wherever) .{0,80}\b(?:apps?|podcasts?|feed)\b.{0,20}|(?:this|the) (?:video|content|media|audio) (?:can ?not|can['’]t|could not|is not|isn['’]t) (?:be )?(?:played|available|supported)\b.{0,60}|(?:do you have|have you got|got|have) (?:a|any) (?:story|tip|news|question)s?\b[^.?!]{0,60}\?.{0,60}(?:@|\b(?:write|mail|call|contact|tell|send)\b).{0,100}|report (?:this|an?) (?:job|ad|listing|comment|problem|error|abuse)\b.{0,60}|(?:suscríb(?:ete|ase)|abbonati|assine|abonnieren sie|word abonnee|bli prenumerant)\b.{0,160}|(?:archivado|etiquetado) (?:en|como|con)\b.{0,160}|buy me an? (?:coffee|tea|beer)|(?:tap|click) (?:here )?to (?:load|enlarge|view|expand|see)\b.{0,40}|rights and permissions|reprints and permissions\b.{0,80}|download citation\.?|(?:mentions légales|impressum|aviso legal|note legali)\b.{0,120}|zum rezept(?: springen)?|\d(?:[.,]\d)? (?:from|out of) \d+ (?:votes|ratings|reviews)\.?|back to top|skip to (?:main )?content|loading\s?…?\.{0,3}|click to enlarge|play video|view (?:gallery|comments|all \d* ?comments)|\d+ comments?|comments? \(\d+\)|(?:blog )?comments powered by.{0,40}|add your comment|leave a (?:reply|comment).{0,40}|(?:show|hide) comments|filed under:?.{0,120}|you are using an? (?:outdated|old|unsupported) browser\b.{0,160}|(?:your|this) (?:web )?browser (?:is (?:out of date|outdated|not supported|no longer supported)|does(?: not|n['’]t) support)\b.{0,160}|please (?:enable|turn on|activate) javascript\b.{0,160}|(?:tags|tagged(?: with)?|categories|posted in|topics?)\s*:.{0,200}|(?:©|\(c\)|copyright)\s.{0,140}|.{0,60}all rights reserved\.?.{0,60}|this (?:article|story) (?:originally )?appeared (?:in|on) .{0,80}|lire aussi.{0,120}|à lire aussi.{0,120}|lesen sie auch.{0,120}|mehr zum thema.{0,80}|lea también.{0,120}|leer más.{0,80}|abonnez-vous.{0,80})$/i;

/** True for a short block that is a label of the page and not a sentence of the text. */
export function isLineOfClutter(text: string): boolean {
  return text.length < 220 && CLUTTER.test(text.replace(/\s+/g, ' '));
}

const ABOUT_NAMES =
  /^(?:not to be (?:confused|mistaken) (?:with|for)\b|(?:for|other) .{2,100}, see\b|this (?:article|page) is about .{2,160}\bsee\b|.{2,80}\bredirects here\b|nicht zu verwechseln mit\b|dieser artikel (?:behandelt|beschreibt|handelt) .{2,160}\b(?:siehe|zu)\b|ne doit pas être confondue? avec\b|cet article (?:concerne|traite) .{2,160}\bvoir\b|no (?:debe )?confundir(?:se)? con\b|este artículo (?:trata|es) .{2,160}\b(?:véase|consulte)\b)/i;

/** True for a line that tells a page's subject from others of the same name, as works of reference put before the text. Common practice. */
export function tellsNamesApart(text: string): boolean {
  return text.length < 300 && ABOUT_NAMES.test(text.replace(/\s+/g, ' '));
}

const MONTH =
  '(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec|januar|februar|märz|mai|juni|juli|oktober|dezember|janvier|février|mars|avril|juin|juillet|août|septembre|octobre|novembre|décembre|enero|febrero|marzo|abril|mayo|junio|julio|agosto|septiembre|octubre|noviembre|diciembre)\\p{L}*\\.?';
const DATE = new RegExp(
  `(?:\\b${MONTH}\\s+\\d{1,2}(?:st|nd|rd|th)?,?\\s+\\d{4}|\\b\\d{1,2}(?:st|nd|rd|th|\\.)?\\s+(?:de\\s+)?${MONTH}\\s+(?:de\\s+)?\\d{4}|\\b\\d{4}-\\d{2}-\\d{2}\\b|\\b\\d{1,2}[./]\\d{1,2}[./]\\d{2,4}\\b|\\d{4}年\\d{1,2}月\\d{1,2}日)`,
  'iu',
);
const BYLINE = /^(?:by|from|von|par|por|di|door|written by|posted by|text|author)\b(?:\s*:)?\s*\p{Lu}/iu;
const STAMP =
  /^(?:published|posted|updated|last updated|first published|modified|publié|mis à jour|veröffentlicht|stand|publicado|actualizado|更新时间|发布时间|公開日)\b|^(?:更新|发布|公開)/i;

/** True for a byline, a date or a button row, as they stand between headline and text. */
export function isPreambleLine(text: string): boolean {
  if (text.length > 300) return false;
  const flat = text.replace(/\s+/g, ' ');
  if (flat.length > 150 || /[.!?]["”’]?$/.test(flat.replace(/\b[ap]\.m\.$/i, ''))) return false;
  return (
    (flat.length <= 120 && (BYLINE.test(flat) || STAMP.test(flat))) ||
    CRUMBS.test(flat) ||
    (flat.length < 80 && ((DIGIT.test(flat) && (DATE.test(flat) || MOMENT.test(flat))) || LABEL.test(flat)))
  );
}

/** Names behind *by*, each with a capital. */
const SIGNED =
  /^(?:by|von|par|por|di|door|By|BY|Von|Par|Por|Di|Door):?\s+\p{Lu}[\p{L}.'’-]*(?:,?\s+(?:(?:and|und|et|y|e|en)\s+)?\p{Lu}[\p{L}.'’-]*){1,7}$/u;

/** True for a line that says who wrote a text and when, and no more, as it may also stand behind the standfirst. */
export function isSignedAndDated(text: string): boolean {
  const flat = text.replace(/\s+/g, ' ').trim();
  const date = flat.length <= 100 ? DATE.exec(flat) : null;
  if (!date || !/^[.\s]*$/.test(flat.slice(date.index + date[0].length))) return false;
  return SIGNED.test(flat.slice(0, date.index).replace(/(?:[\s,·|–—-]|\b(?:on|am|le|el|den)\b)+$/u, ''));
}

const DIGIT = /\d/;
/** A year and a time of day, in whatever language the month is. */
const MOMENT = /\b(?:19|20)\d\d\b.*\b\d{1,2}[:.]\d{2}\b|\b\d{1,2}:\d{2}\b.*\b(?:19|20)\d\d\b/;
/** The way from the front page to here. */
const CRUMBS = /^[^.!?]{2,40}\s(?:»|›|>|\/\/|\||→)\s*[^.!?]{2,120}$/;
/** A label whose value was a button. */
const LABEL = /^[^.!?,;]{2,30}:$/;

/** A shout, a count or a pointer at the end of a text, and no sentence: "FOLLOW THIS TOPIC", "861 Kudos", "More »". */
export function isTailLine(text: string): boolean {
  if (text.length > 120) return false;
  const flat = text.replace(/\s+/g, ' ').trim();
  if (flat.length > 60 || /[.!?…。！？؟]["”’»)]*$/.test(flat)) return false;
  return /^[\p{Lu}\s\d'’&-]{6,}$/u.test(flat) || /[›»→:]$/.test(flat) || /^(?:\d+\s+\p{L}+\s*){1,3}$/u.test(flat);
}

const COMMENTS =
  /^(?:\d+\s+)?(?:(?:reader|your|user|all|latest)\s+)?(?:comments?|responses|replies|commentaires?|réactions|kommentare?|comentarios?|comentários|commenti|reacties|komentarze|коментари|комментари[ий]|коментарі|hozzászólások|yorumlar|コメント|(?:网友|全部|最新|热门|发表)?评论|評論|댓글|تعليقات|التعليقات)(?:\s*:)?(?:\s*\(?\d+\)?)?$/iu;

/** True for a short line that announces what readers wrote. */
export function announcesComments(text: string): boolean {
  return text.length < 50 && COMMENTS.test(text.trim());
}

/** True for a line that says when something was written. */
export function saysWhen(text: string): boolean {
  return (
    text.length < 200 &&
    DIGIT.test(text) &&
    (DATE.test(text) || MOMENT.test(text) || /\b\d+ (?:minutes?|hours?|days?|months?|years?) ago\b/i.test(text))
  );
}

const OTHERS =
  /^(?:more (?:from|on|in|stories|news|about|coverage)\b|(?:other|more) (?:\p{L}+ ){0,2}(?:stories|articles|columns|news|posts|features|headlines|topics)\b|related\b|recommended\b|you (?:may|might) (?:also )?(?:like|enjoy)|read (?:more|next|other)\b|most (?:read|popular|viewed|commented|shared)\b|popular (?:stories|articles|posts|now)|latest (?:news|stories|articles|posts)|recent (?:posts|stories|articles)|trending\b|top stories|don['’]t miss|also on\b|from around the web|around the web|promoted (?:stories|links)|sponsored (?:links|stories)|what to read next|comments?\b|\d+ comments?\b|leave a (?:reply|comment)|join the (?:conversation|discussion)|share (?:this|your)\b|about the author|subscribe\b|sign up\b|newsletter\b|mehr zum thema|weitere (?:artikel|themen|nachrichten)|das könnte sie|lesen sie auch|sur le même (?:sujet|thème)|à lire aussi|lire aussi|vos (?:commentaires|réactions)|commentaires\b|noticias relacionadas|más (?:noticias|información|en)\b|te puede interesar|comentarios\b|相关(?:链接|新闻|阅读)|与内文相关的链接|関連(?:記事|リンク)|관련 ?기사|مواضيع ذات صلة|اقرأ أيضا)/iu;

/** True for a short line or heading that announces other articles, comments or a sign-up. */
export function announcesOthers(text: string): boolean {
  return text.length > 0 && text.length < 80 && OTHERS.test(text);
}

const STEP =
  /^(?:[«‹<←⟵]|(?:previous|prev|next|zurück|weiter|précédente?|suivante?|anterior|siguiente|contents|table of contents|inhalt|sommaire|index|up|home|top|föregående|nästa|vorige|volgende|poprzedni|następny|назад|вперёд|предыдущ|следующ)\b|上一[篇页頁章]|下一[篇页頁章]|前の|次の|이전 ?글|다음 ?글|السابق|التالي)|[»›>→⟶]$/i;

/** True for the words of a link to the page before, the next one, or their list. */
export function isStep(text: string): boolean {
  return text.length < 100 && STEP.test(text.trim());
}

const SOURCES =
  /^(?:\d+\.?\s*)?(?:references?|sources?(?: cited)?|bibliography|works cited|(?:show |useful )?links|resources|show ?notes|mentioned in this (?:episode|article|post)|liens|enlaces|literature(?: cited)?|further reading|notes and references|quellen(?:angaben)?|literatur(?:verzeichnis)?|einzelnachweise|weiterführende literatur|références|bibliographie|sources et références|referencias|bibliografía|fuentes|referenties|bronnen|riferimenti|bibliografia|fonti|参考文献|参考資料)\s*:?$/iu;

/** True for a heading over what a text has drawn on: a list of links that belongs to it. */
export function announcesSources(text: string): boolean {
  return text.length < 60 && SOURCES.test(text.replace(/[¶#]/g, '').trim());
}
