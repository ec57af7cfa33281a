declare module 'html-encoding-sniffer' {
  export default function sniff(
    bytes: Uint8Array,
    options?: { transportLayerEncodingLabel?: string; defaultEncoding?: string },
  ): string;
}
declare module 'whatwg-encoding' {
  export function decode(bytes: Uint8Array, encoding: string): string;
  export function labelToName(label: string): string | null;
}
declare module '@citation-js/core' {
  export class Cite {
    constructor(data: unknown);
    data: unknown[];
    format(format: string, options?: Readonly<Record<string, unknown>>): string;
  }
  export const plugins: { config: { get(name: '@bibtex'): { format: { useIdAsLabel: boolean } } } };
}
declare module '@citation-js/plugin-bibtex';
declare module '@citation-js/plugin-csl';
declare module '@citation-js/plugin-ris';
