/** The globals beyond ECMAScript that core uses: they are in every place that core runs. WHATWG URL first. */
declare class URL {
  constructor(url: string, base?: string);
  href: string;
  readonly origin: string;
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

/** Base64 (HTML, 8.3) and UTF-8 (WHATWG Encoding). */
declare function atob(data: string): string;
declare function btoa(data: string): string;
declare class TextDecoder {
  constructor(label?: string);
  decode(input: Uint8Array): string;
}
