export type { WordMark } from './marks';
export type { PicoModule } from './pico-module';
export { joined, SAMPLE_RATE, silence } from './sound';
export * from './speaker';
