import type { HowMuch } from '@dorvel/core/model';

/**
 * A bookmark that runs on the page it is pressed on: it posts the address, and the page as it stands there, to `/save`. Where
 * the page's policy forbids its forms to go elsewhere (CSP `form-action`), it opens the share screen with the address.
 *
 * @param origin of this server
 * @param secret of a token for saving
 * @param howMuch what a save by it keeps
 * @returns the address of the bookmark
 */
export function bookmarklet(origin: string, secret: string, howMuch: HowMuch): string {
  const given = JSON.stringify({ origin, secret, howMuch });
  // A text area keeps line breaks; the page may have put methods of its own in place of the form's.
  const code = `(()=>{const g=${given},d=document,f=d.createElement("form");
f.method="post";f.action=g.origin+"/save";f.target="_blank";f.rel="noopener";f.acceptCharset="utf-8";f.hidden=true;
const put=(n,v)=>{const t=d.createElement("textarea");t.name=n;t.value=v;f.append(t)},h=d.documentElement.outerHTML;
put("token",g.secret);put("address",location.href);put("howMuch",g.howMuch);put("html",h.length<3e6?h:"");
d.addEventListener("securitypolicyviolation",e=>{if(e.effectiveDirective==="form-action")open(g.origin+"/share?"+new URLSearchParams({url:location.href,title:d.title}),"_blank","noopener")},{once:true});
d.documentElement.append(f);HTMLFormElement.prototype.submit.call(f);f.remove()})()`;
  return `javascript:${encodeURIComponent(code.replace(/\n/g, ''))}`;
}
