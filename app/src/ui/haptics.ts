/** A short tick under the finger, where the device has one and the reader wants things to move. */
export function tick(): void {
  if (!('vibrate' in navigator) || matchMedia('(prefers-reduced-motion: reduce)').matches) return;
  navigator.vibrate(8);
}
