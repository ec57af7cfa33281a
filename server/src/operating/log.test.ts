import { serverLog } from './log';

/** What a log writes, a line at a time. */
function listening() {
  const lines: string[] = [];
  return { lines, log: serverLog('info', { write: (line: string) => void lines.push(line) }) };
}

it('says of an error what failed and where, and not with which values or at which address', () => {
  const { lines, log } = listening();
  const cause = Object.assign(new Error('database is locked'), { code: 'SQLITE_BUSY' });
  const query = new Error(
    'Failed query: insert into "items" values (?, ?)\nparams: What the harbour knows,https://harbour.example/notice\nsecond line',
    { cause },
  );
  log.error({ err: query }, 'request failed');
  log.error({ err: new Error('no answer from https://harbour.example/a?b=c (ECONNREFUSED)') }, 'a job failed');
  log.error({ err: 'The harbour said no' }, 'not an error at all');
  const said = lines.join('');
  for (const word of ['harbour', 'second line', 'b=c']) expect(said).not.toContain(word);
  expect(said).toContain('insert into');
  expect(said).toContain('log.test.ts');
  expect(said).toContain('SQLITE_BUSY');
  expect(said).toContain('no answer from … (ECONNREFUSED)');
});

it('says of a request its method and its path, and not what was asked, nor by whom', () => {
  const { lines, log } = listening();
  const req = {
    id: 7,
    method: 'GET',
    url: '/api/extension/page?address=https%3A%2F%2Fharbour.example',
    headers: { cookie: 'dorvel_session=secret', authorization: 'Bearer secret' },
  };
  log.info({ req, res: { statusCode: 404, headers: { 'set-cookie': 'secret' } } }, 'request completed');
  expect(JSON.parse(lines[0] ?? '')).toMatchObject({
    req: { id: 7, method: 'GET', path: '/api/extension/page' },
    res: { statusCode: 404 },
  });
  expect(lines[0]).not.toMatch(/harbour|secret/);
});
