/** What makes a list of it for those who hear the screen; one without entries is no list. */
export function namedList(name: string, count: number): { role?: 'list'; 'aria-label'?: string } {
  return count > 0 ? { role: 'list', 'aria-label': name } : {};
}
