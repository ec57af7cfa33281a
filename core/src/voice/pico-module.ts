/** What we use of the engine's module: SVOX Pico compiled to WebAssembly, which ships without types. */
export interface PicoModule {
  readonly HEAPU8: Uint8Array;
  readonly HEAPU16: Uint16Array;
  readonly HEAP16: Int16Array;
  readonly HEAPU32: Uint32Array;
  readonly FS: {
    mkdir(path: string): void;
    writeFile(path: string, data: Uint8Array): void;
    unlink(path: string): void;
  };
  _malloc(bytes: number): number;
  _free(address: number): void;
  _pico_initialize(memory: number, bytes: number, outSystem: number): number;
  _pico_createVoiceDefinition(system: number, name: number): number;
  _pico_loadResource(system: number, path: number, outResource: number): number;
  _pico_getResourceName(system: number, resource: number, outName: number): number;
  _pico_addResourceToVoiceDefinition(system: number, voice: number, resource: number): number;
  _pico_newEngine(system: number, voice: number, outEngine: number): number;
  _pico_resetEngine(engine: number, mode: number): number;
  _pico_putTextUtf8(engine: number, text: number, bytes: number, outTaken: number): number;
  _pico_getData(engine: number, buffer: number, bytes: number, outBytes: number, outType: number): number;
}
