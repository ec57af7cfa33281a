import Bowser from 'bowser';

/** Who asks, as far as a request tells. */
export interface Caller {
  /** `Firefox on Linux`; empty when the browser says nothing that is known. */
  device: string;
  /** The network address. */
  place: string;
}

/** A device's own words of itself are long and of no use to a reader; browser and system are. @param userAgent the header's */
export function deviceWords(userAgent: string | undefined): string {
  if (!userAgent) return '';
  const { browser, os } = Bowser.parse(userAgent.slice(0, 500));
  const named = [browser.name, os.name].filter((name): name is string => Boolean(name));
  return named.join(' on ').slice(0, 100);
}
