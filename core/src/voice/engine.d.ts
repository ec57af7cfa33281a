/** The engine ships without types; see PicoModule for what is used of it. */
declare module '@echogarden/svoxpico-wasm' {
  /** @param options where its WebAssembly lies; under Node it finds that beside itself */
  const startEngine: (options?: { locateFile(name: string): string }) => Promise<import('./pico-module').PicoModule>;
  export default startEngine;
}
