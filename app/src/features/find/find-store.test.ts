import { hasFilter, tagFilter, withToggled } from './find-store';

it.each([
  ['eelgrass', 'is:unread', 'eelgrass is:unread '],
  ['eelgrass is:unread ', 'is:unread', 'eelgrass '],
  ['', 'minutes:<10', 'minutes:<10 '],
  ['"brown water" tag:"old boats" ', 'tag:"old boats"', '"brown water" '],
  ['"is:unread', 'is:unread', '"is:unread is:unread '],
])('“%s” with %s toggled is “%s”', (written, filter, toggled) => {
  expect(withToggled(written, filter)).toBe(toggled);
});

it('a filter that was put in is there, and no other', () => {
  const written = withToggled('larch', tagFilter('old boats'));
  expect(hasFilter(written, 'tag:"old boats"')).toBe(true);
  expect(hasFilter(written, 'tag:old')).toBe(false);
  expect(tagFilter('tides/local')).toBe('tag:tides/local');
});
