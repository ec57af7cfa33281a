import { z } from 'zod';

// Our pages may not make code out of strings (server/routes/web, Content-Security-Policy). Zod would try to once, which throws and is
// told to whoever follows what the policy stops.
z.config({ jitless: true });

/** Selectors of other browsers, which Chromium and WebKit refuse. */
const OF_OTHERS = /::-moz-|:-ms-/;
const REFUSED = '.none{}';

/**
 * react-native-web gives a browser the rules of all others, each of which throws. An exception while a script starts costs more than
 * the rule: whatever looks at the page then (an extension, a debugger) makes V8 read the whole script again for its place.
 */
function insertOnlyOwnRules(): void {
  const { insertRule } = CSSStyleSheet.prototype;
  CSSStyleSheet.prototype.insertRule = function (rule, index) {
    return insertRule.call(this, OF_OTHERS.test(rule) && !isGecko ? REFUSED : rule, index);
  };
}

const isGecko = 'CSS' in globalThis && CSS.supports('selector(::-moz-focus-inner)');

if (typeof CSSStyleSheet !== 'undefined') insertOnlyOwnRules();
