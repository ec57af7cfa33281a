import { parseLoosely } from './linked-data';

it.each([
  '{"a":"b"}',
  '<!-- {"a":"b"} -->',
  '//<![CDATA[\n{"a":"b"}\n//]]>',
  '/*<![CDATA[*/ {"a":"b"} /*]]>*/',
  '/* written by a plugin */ {"a":"b"};',
  '<![CDATA[{"a":"b"}]]>',
  '{"a":"b",}',
  ' \n {"a"\n:\n"b"}\n; ',
])('reads JSON as pages wrap it: %j', (written) => {
  expect(parseLoosely(written)).toEqual({ a: 'b' });
});

it('keeps marks that stand inside', () => {
  expect(parseLoosely('// {"a":"/* no */ //x; -->"} ;')).toEqual({ a: '/* no */ //x; -->' });
});

it.each(['{', '', '/*', '/* no end', '<!--', 'function () {}'])('reads nothing in %j', (written) => {
  expect(parseLoosely(written)).toBeUndefined();
});
