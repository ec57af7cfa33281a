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
