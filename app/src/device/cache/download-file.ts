/** Gives the reader a file, as the browser's own downloads do. */
export function handOutFile(name: string, type: string, content: string): void {
  const address = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}
