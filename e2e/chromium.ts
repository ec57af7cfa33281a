import { existsSync } from 'node:fs';

/** Debian's Chromium; undefined where it is not installed. */
export const executablePath = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'].find(
  existsSync,
);

/** What it is started with: nothing of its own goes over the network. */
export const CHROMIUM_WORDS =
  '--no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking --disable-component-update --disable-sync'.split(
    ' ',
  );
