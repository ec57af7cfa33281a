import { pairingCode, readPairingCode } from './extension';

const SECRET = 'q7-Zk_3'.repeat(6);

it('reads the pairing codes that it makes', () => {
  for (const origin of ['https://library.example', 'http://127.0.0.1:4800'])
    expect(readPairingCode(`  ${pairingCode(origin, SECRET)}\n`)).toEqual({ origin, secret: SECRET });
});

test.each([
  '',
  SECRET,
  `https://library.example/#${SECRET}`,
  `https://library.example/pair`,
  `https://library.example/pair#short`,
  `ftp://library.example/pair#${SECRET}`,
  `javascript:/pair#${SECRET}`,
])('takes “%s” for none', (code) => {
  expect(readPairingCode(code)).toBeNull();
});
