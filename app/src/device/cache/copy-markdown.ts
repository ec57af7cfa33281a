/** Puts Markdown on the clipboard: as rich text for what takes it, as it stands for all else. */
export async function copyMarkdown(markdown: string): Promise<void> {
  const { markdownAsHtml } = await import('@/device/formats');
  const blob = (type: string, content: string) => new Blob([content], { type });
  await navigator.clipboard.write([
    new ClipboardItem({
      'text/html': blob('text/html', markdownAsHtml(markdown)),
      'text/plain': blob('text/plain', markdown),
    }),
  ]);
}
