/** The one global beyond ECMAScript that core uses: WHATWG URL is in every place that core runs. */
declare class URL {
  constructor(url: string, base?: string);
  href: string;
  protocol: string;
  username: string;
  password: string;
  host: string;
  hostname: string;
  port: string;
  pathname: string;
  search: string;
  hash: string;
  readonly searchParams: URLSearchParams;
  static canParse(url: string, base?: string): boolean;
}

declare class URLSearchParams {
  delete(name: string): void;
  [Symbol.iterator](): IterableIterator<[string, string]>;
}
