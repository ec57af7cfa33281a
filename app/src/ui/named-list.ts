/**
 * What makes a list of it for those who hear the screen; one without entries is no list. Not for a FlatList that may be empty:
 * the role decides the element, and the one that comes with the first entry would never be measured.
 */
export function namedList(name: string, count: number): { role?: 'list'; 'aria-label'?: string } {
  return count > 0 ? { role: 'list', 'aria-label': name } : {};
}
