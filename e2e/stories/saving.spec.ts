import { expect, test } from '@playwright/test';
import { type OwnServer, ownServer } from '../own-server';
import { page as webPage, SAVING_PORTS } from '../ports';
import { row, signIn } from '../reader';

/** A library of its own: other stories would put things into it. */
let server: OwnServer | undefined;
test.afterEach(() => server?.clear());

test('two hundred addresses pasted at once, twenty of them bad; and one shared before anybody has signed in', async ({
  page,
  context,
}, { project }) => {
  const own = (server = ownServer(project.name === 'phone' ? SAVING_PORTS.phone : SAVING_PORTS.wide, {
    DORVEL_DEMO: '1',
  }));
  await own.start();

  await test.step('what is shared waits for the signing in', async () => {
    const shared = new URLSearchParams({
      title: 'How to caulk a seam',
      text: `How to caulk a seam ${webPage('hall', '/notices/how-to-caulk-a-seam')}`,
    });
    await page.goto(`${own.origin}/share?${shared.toString()}`);
    await expect(page.getByRole('button', { name: 'Fill in the demo account' })).toBeVisible();
    await signIn(page, own.origin);
    await expect(row(page, /caulk/)).toBeVisible();
  });

  await test.step('a share without an address says so, and keeps its words on screen', async () => {
    await page.goto(`${own.origin}/share?text=only%20words`);
    await expect(page.getByRole('heading', { name: 'No address in it' })).toBeVisible();
    await expect(page.getByText('only words')).toBeVisible();
    await page.goto(`${own.origin}/inbox`);
  });

  await test.step('a list is saved with the network cut, and what is bad is told', async () => {
    await expect(page.getByText(/^1 to decide/)).toBeVisible();
    await page.evaluate(async () => (await navigator.serviceWorker.ready).active?.state);
    await context.setOffline(true);
    const good = Array.from({ length: 179 }, (_, n) => webPage('rough', `/turning/list-${n}`));
    const bad = Array.from({ length: 20 }, (_, n) => `ftp://files.example/${n}`);
    const again = webPage('hall', '/notices/how-to-caulk-a-seam?utm_source=list');
    await page.getByRole('button', { name: 'Save an address' }).first().click();
    const sheet = page.getByRole('dialog', { name: 'Save an address' });
    await sheet.getByLabel('Address of a page').fill([...good, again, ...bad].join(' '));
    await expect(sheet.getByText('180 addresses, 1 of them in your library already.')).toBeVisible();
    await expect(sheet.getByText('20 cannot be saved:')).toBeVisible();
    await sheet.getByRole('button', { name: 'Save 180' }).click();
    await expect(page.getByText('179 saved to Inbox.')).toBeVisible();
    await expect(page.getByText(/^180 to decide/)).toBeVisible();
  });

  await test.step('and taken back in one press', async () => {
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText(/^1 to decide/)).toBeVisible();
    await context.setOffline(false);
  });

  await test.step('what a phone shares comes by a post, files too, also without a connection', async () => {
    await context.setOffline(true);
    // As the share sheet does it: a form, sent as a navigation.
    const share = (words: Record<string, string>, file?: { name: string; text: string }) =>
      page.evaluate(
        ([fields, given]) => {
          const form = document.createElement('form');
          Object.assign(form, { method: 'post', action: '/share', enctype: 'multipart/form-data' });
          for (const [name, value] of Object.entries(fields)) {
            const field = Object.assign(document.createElement('input'), { name, value });
            form.append(field);
          }
          if (given) {
            const transfer = new DataTransfer();
            transfer.items.add(new File([given.text], given.name));
            const field = Object.assign(document.createElement('input'), { type: 'file', name: 'files' });
            field.files = transfer.files;
            form.append(field);
          }
          document.body.append(form);
          form.submit();
        },
        [words, file] as const,
      );
    await share({ title: 'A shared page', text: webPage('rough', '/turning/shared-by-post') });
    await expect(page).toHaveURL(/\/inbox/);
    await expect(row(page, /shared-by-post/)).toBeVisible();
    await share(
      { title: 'Notes' },
      { name: 'Shared notes.md', text: `# Shared notes\n\n${'Words of mine. '.repeat(40)}` },
    );
    const sheet = page.getByRole('dialog', { name: 'Save an address' });
    await expect(sheet.getByText('Shared notes.md')).toBeVisible();
    await sheet.getByRole('button', { name: /^Save/ }).click();
    await context.setOffline(false);
    // The server may still be at the hundred and eighty.
    await expect(row(page, 'Shared notes').getByRole('img', { name: /min/ })).toBeVisible({
      timeout: 60_000,
    });
    const straight = await page.request.post(`${own.origin}/share`, { maxRedirects: 0, form: { url: 'x' } });
    expect([straight.status(), straight.headers().location]).toEqual([303, '/share?again=yes']);
  });

  await test.step('files are dropped on the window: lists give their pages, texts are items themselves', async () => {
    const bookmarks = `<!DOCTYPE NETSCAPE-Bookmark-file-1>\n<DL><p><DT><A HREF="${webPage('rough', '/turning/dropped-one')}" ADD_DATE="1">One</A>\n<DT><H3>Crossings</H3>\n<DL><p><DT><A HREF="${webPage('rough', '/turning/dropped-two')}" TAGS="by hand">Two</A></DL></DL>`;
    const prose = 'The eelgrass came back in the third summer, and with it the small fish that nobody had counted. ';
    const files: [name: string, content: string][] = [
      ['bookmarks.html', bookmarks],
      ['pages.csv', `title,address\n"Three","${webPage('rough', '/turning/dropped-three')}"\n`],
      ['Notes on eelgrass.md', `# Notes on eelgrass\n\n${prose.repeat(8)}\n\n${prose.repeat(8)}\n`],
      ['subscriptions.opml', '<opml version="2.0"/>'],
      ['drawing.dwg', 'x'],
    ];
    await context.setOffline(true);
    const dropped = await page.evaluateHandle((list) => {
      const transfer = new DataTransfer();
      for (const [name, content] of list) transfer.items.add(new File([content], name));
      return transfer;
    }, files);
    await page.dispatchEvent('body', 'drop', { dataTransfer: dropped });
    const sheet = page.getByRole('dialog', { name: 'Save an address' });
    await expect(sheet.getByText('3 addresses and 1 file.')).toBeVisible();
    await expect(sheet.getByText('2 cannot be saved:')).toBeVisible();
    await expect(sheet.getByText(/^subscriptions\.opml: That is a list of feeds/)).toBeVisible();
    await expect(sheet.getByText('Their folders and tags there make 2 tags here.')).toBeVisible();
    await sheet.getByRole('button', { name: 'Save 4' }).click();
    await expect(page.getByText('4 saved to Inbox.')).toBeVisible();
    await context.setOffline(false);
    const notes = row(page, 'Notes on eelgrass');
    await expect(notes.getByRole('img', { name: /min/ })).toBeVisible();
    await expect(row(page, /Crossing to Dropped (?:One|Two|Three)/)).toHaveCount(3);
    await expect(row(page, 'Crossing to Dropped Two')).toContainText('by hand, Crossings');
    await expect(row(page, 'Crossing to Dropped One')).not.toContainText('Crossings');
    await notes.getByRole('link').click();
    await expect(page.getByTestId('reader').getByText('the small fish that nobody had counted').first()).toBeVisible();
  });
});
