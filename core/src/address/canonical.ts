import { isLocalAddress } from './local';

/** Query parameters that only say how a reader came to the page. Common practice; matched whole, lower-cased. */
const TRACKING = new Set(
  (
    'fbclid gclid gclsrc dclid gbraid wbraid msclkid yclid twclid ttclid igshid igsh mc_cid mc_eid mkt_tok ' +
    '_hsenc _hsmi __hstc __hssc __hsfp hsctatracking vero_id vero_conv oly_anon_id oly_enc_id wickedid ' +
    's_cid cmpid ncid ref_src ref_url spm scm _openstat at_medium at_campaign _ga _gl'
  ).split(' '),
);
const TRACKING_PREFIX = /^(utm_|mtm_|pk_|piwik_|hsa_|matomo_)/;

/**
 * The form of an address under which two spellings of one page are the same: no fragment, no default
 * port, no credentials, no tracking parameters, host lower-cased (WHATWG URL), http taken for https.
 * A `#!` fragment is kept, since it names a page of its own on the sites that use it.
 *
 * That of a letter or a file is its own.
 *
 * @throws TypeError when `address` is neither that nor an absolute http or https address.
 */
export function canonicalAddress(address: string): string {
  if (isLocalAddress(address)) return address;
  const url = new URL(address);
  if (url.protocol !== 'http:' && url.protocol !== 'https:') throw new TypeError('not an http address');
  const defaultPort = url.port === '80' || url.port === '443';
  if (defaultPort) url.port = '';
  url.protocol = 'https:';
  url.username = '';
  url.password = '';
  if (!url.hash.startsWith('#!')) url.hash = '';
  if (url.search !== '' || url.href.includes('?')) {
    const kept = url.search
      .slice(1)
      .split('&')
      .filter((pair) => {
        const name = (pair.split('=')[0] ?? '').toLowerCase();
        return pair !== '' && !TRACKING.has(name) && !TRACKING_PREFIX.test(name);
      });
    url.search = kept.length > 0 ? `?${kept.join('&')}` : '';
  }
  url.pathname = url.pathname.replace(/%[0-9a-f]{2}/gi, (escape) => {
    const char = String.fromCharCode(parseInt(escape.slice(1), 16));
    // RFC 3986, 6.2.2.2: an escaped unreserved character is the same as the character.
    return /[A-Za-z0-9._~-]/.test(char) ? char : escape.toUpperCase();
  });
  return url.href;
}
