import { Router } from 'express';
import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { escape } from './page-parts';

interface Received {
  to: string;
  subject: string;
  text: string;
  html: string;
}

const MOST = 50;

/** Where the letters of the demo arrive, a stand-in for a reader's mail: kept in memory, the latest first. */
export function letterBox() {
  const letters: Received[] = [];
  const server = new SMTPServer({
    authOptional: true,
    disableReverseLookup: true,
    disabledCommands: ['STARTTLS'],
    onData(stream, session, done) {
      simpleParser(stream).then(
        ({ subject, text, html }) => {
          const to = session.envelope.rcptTo.map(({ address }) => address).join(', ');
          letters.unshift({ to, subject: subject ?? '', text: text ?? '', html: html === false ? '' : (html ?? '') });
          letters.length = Math.min(letters.length, MOST);
          done();
        },
        (error: unknown) => done(error instanceof Error ? error : new Error(String(error))),
      );
    },
  });
  const router = Router();
  router.get('/letters', (_request, response) => {
    const rows = letters.map(
      ({ to, subject }, at) =>
        `<li><a href="/letters/${letters.length - at}">${escape(subject)}</a><br>to ${escape(to)}</li>`,
    );
    const list = rows.length > 0 ? `<ol reversed>${rows.join('')}</ol>` : '<p>None has come yet.</p>';
    response
      .type('html')
      .send(
        `<!doctype html><html lang="en"><meta charset="utf-8"><title>Letters</title><h1>Letters</h1>${list}</html>`,
      );
  });
  router.get('/letters/:number', (request, response) => {
    const letter = letters[letters.length - Number(request.params.number)];
    if (!letter) return void response.status(404).send('No such letter.');
    // As a mail program would: nothing in it runs.
    response.set('content-security-policy', 'sandbox allow-popups allow-top-navigation-by-user-activation');
    response
      .type(request.query.as === 'text' ? 'text' : 'html')
      .send(request.query.as === 'text' ? letter.text : letter.html);
  });
  return { server, router };
}
