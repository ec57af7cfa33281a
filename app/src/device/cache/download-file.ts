/** Gives the reader a file, as the browser's own downloads do. */
export function handOutFile(name: string, content: Blob): void {
  const address = URL.createObjectURL(content);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}

/** The same of a text. @param type its media type */
export const handOutText = (name: string, type: string, content: string): void =>
  handOutFile(name, new Blob([content], { type }));
