import { AccountOverview } from '.';

it('leaves out what was done of a kind that came with a later version, and keeps the rest', () => {
  const event = (kind: string) => ({ at: 1, kind, device: 'Firefox on Linux', place: '192.0.2.7', about: null });
  const overview = {
    ...{ sessions: [], passkeys: [], passkeysOnly: false, mayInvite: true, invitations: [] },
    kept: { items: 1, pictureBytes: 0, pictureQuotaBytes: null },
    events: [event('signed-in'), event('opened-by-what-is-not-invented-yet'), event('passkeys-only')],
  };
  expect(AccountOverview.parse(overview).events.map(({ kind }) => kind)).toEqual(['signed-in', 'passkeys-only']);
  expect(() => AccountOverview.parse({ ...overview, events: 'none' })).toThrow();
});
