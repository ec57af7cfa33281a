import { simpleParser } from 'mailparser';
import { readMail } from './read-mail';

const read = async (headers: string[], body: string) => {
  const raw = Buffer.from(
    ['From: Joost <joost@slipway.example>', 'Message-ID: <1@slipway.example>', ...headers, '', body].join('\r\n'),
  );
  return readMail(await simpleParser(raw, { skipImageLinks: true }), raw);
};
const LONG = 'It is a long letter, and it says what there is to be said. '.repeat(20);

describe('what a mail asks for', () => {
  it.each([
    ['a bare link', 'https://slipway.example/yard/larch', ['https://slipway.example/yard/larch'], undefined],
    [
      'a link with words, a signature and the line of a phone',
      'For Thursday: <https://slipway.example/larch>, and the oak.\n\nSent from my telephone',
      ['https://slipway.example/larch'],
      'For Thursday: , and the oak.',
    ],
    [
      'two links',
      'https://a.example/1\nhttps://a.example/2\n-- \nJoost\nhttps://joost.example/',
      ['https://a.example/1', 'https://a.example/2'],
      undefined,
    ],
    ['a quoted line', '> Have you seen it?\nhttps://a.example/1', ['https://a.example/1'], undefined],
  ])('%s', async (_what, body, addresses, note) => {
    const wishes = await read(['Subject: Look #wood #garden/soil, at no. #'], body);
    expect(wishes.map(({ address }) => address)).toEqual(addresses);
    expect(wishes[0]).toMatchObject({ tags: ['wood', 'garden/soil'] });
    expect(wishes[0]?.note).toBe(note);
  });

  // RFC 2392: the address of a message is its id.
  it.each([
    ['a long letter with a link in it', [], `${LONG} https://a.example/1`],
    ['a short newsletter', ['List-Id: Yard notes <yard.slipway.example>'], 'https://a.example/1'],
    ['a few words without a link', [], 'The larch is in.'],
  ])('%s is a letter to be read', async (_what, headers, body) => {
    const [letter, ...more] = await read(headers, body);
    expect(more).toEqual([]);
    expect(letter).toMatchObject({
      address: 'mid:1@slipway.example',
      given: { type: 'message/rfc822', encoding: 'base64' },
    });
    expect(letter?.note).toBeUndefined();
  });

  // RFC 2046, 5.1: parts; RFC 6920: the address of a file is the hash of its bytes, here of "<h1>Tides</h1>".
  it('files of text are items of their own, and a few words beside them the note', async () => {
    const part = (type: string, disposition: string, body: string) =>
      `--x\r\nContent-Type: ${type}\r\nContent-Disposition: ${disposition}\r\n\r\n${body}\r\n`;
    const mixed = (text: string) =>
      read(
        ['MIME-Version: 1.0', 'Content-Type: multipart/mixed; boundary=x'],
        `${part('text/plain', 'inline', text)}${part('text/html', 'attachment; filename="t.html"', '<h1>Tides</h1>')}${part('image/png', 'attachment; filename="a.png"', 'x')}--x--`,
      );
    const file = {
      given: {
        type: 'text/html',
        body: Buffer.from('<h1>Tides</h1>').toString('base64'),
        encoding: 'base64',
      },
    };
    const [only, ...more] = await mixed('The tables that I spoke of.');
    expect(more).toEqual([]);
    expect(only).toMatchObject({ given: file.given, note: 'The tables that I spoke of.' });
    expect(only?.address).toMatch(/^ni:\/\/\/sha-256;[\w-]{43}$/);
    expect((await mixed(LONG)).map(({ address }) => address)).toEqual(['mid:1@slipway.example', only?.address]);
  });

  it('an empty mail asks for nothing', async () => {
    expect(await read(['Subject: #wood'], '')).toEqual([]);
  });
});
