/** Why two items are near: "both speak of eelgrass, dredging". @param shared terms, weightiest first */
export function sharedInWords(shared: readonly string[]): string {
  return `both speak of ${shared.slice(0, 3).join(', ')}`;
}
