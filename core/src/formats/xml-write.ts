import render from 'dom-serializer';
import { Element, Text } from 'domhandler';
import { appendChild } from 'domutils';

/** An element with its text, or with others inside it. */
export function element(
  name: string,
  attributes: Record<string, string>,
  content: string | readonly Element[] = [],
): Element {
  const made = new Element(name, attributes);
  const children = typeof content === 'string' ? [new Text(content)] : content;
  for (const child of children) appendChild(made, child);
  return made;
}

/** A whole XML document, written out. */
export function xmlDocument(root: Element): string {
  return `<?xml version="1.0" encoding="UTF-8"?>\n${render(root, { xmlMode: true })}\n`;
}
