import express, { Router } from 'express';
import nodemailer from 'nodemailer';
import { z } from 'zod';
import { escape } from './page-parts';

const Letter = z.object({
  from: z.string().min(1),
  to: z.string().min(1),
  subject: z.string().default(''),
  text: z.string().default(''),
  html: z.string().default(''),
  list: z.string().optional(),
});

const FIRST: z.infer<typeof Letter> = {
  from: 'Birgit Saltmarsh <birgit@slipway.example>',
  to: '',
  subject: 'For the winter refit #boats/larch',
  text: 'This is the piece I spoke of: http://slipway.localhost/yard/larch-or-oak',
  html: '',
};

/** A mail client, a stand-in on the host `post`: what is written there goes over SMTP to where the demo takes mail. */
export function postOfficeRoutes(mailPort: number): Router {
  const router = Router();
  router.get('/', (request, response) => {
    const host = request.get('host')?.split(':')[1];
    const text = FIRST.text.replace('localhost', `localhost:${host ?? '80'}`);
    response.type('html').send(page({ ...FIRST, text }, null));
  });
  router.post('/', express.urlencoded({ extended: false, limit: '2mb' }), async (request, response) => {
    const letter = Letter.parse(request.body);
    const transport = nodemailer.createTransport({
      host: '127.0.0.1',
      port: mailPort,
      secure: false,
      ignoreTLS: true,
    });
    const answer = await transport
      .sendMail({
        from: letter.from,
        to: letter.to,
        subject: letter.subject,
        text: letter.text,
        ...(letter.html ? { html: letter.html } : {}),
        ...(letter.list ? { headers: { 'List-Id': '<letters.slipway.example>' } } : {}),
      })
      .then(
        (sent) => `Taken: ${sent.response}`,
        (error: unknown) => `Refused: ${error instanceof Error ? error.message : String(error)}`,
      );
    response.type('html').send(page(letter, answer));
  });
  return router;
}

function page(letter: z.infer<typeof Letter>, answer: string | null): string {
  const field = (name: keyof typeof letter, label: string) =>
    `<p><label>${label}<br><input name="${name}" size="60" value="${escape(letter[name] ?? '')}"></label></p>`;
  const area = (name: keyof typeof letter, label: string, rows: number) =>
    `<p><label>${label}<br><textarea name="${name}" cols="60" rows="${rows}">${escape(letter[name] ?? '')}</textarea></label></p>`;
  return `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Post office</title>
<style>body{font-family:system-ui;max-width:40rem;margin:auto;padding:1rem}input,textarea{max-width:100%;font:inherit}</style>
<h1>Post office</h1><p>A stand-in for a mail program. What is written here goes by SMTP to the demo and nowhere else.</p>
${answer === null ? '' : `<p role="status"><strong>${escape(answer)}</strong></p>`}
<form method="post">${field('from', 'From')}${field('to', 'To (under “Save from elsewhere” in Dorvel)')}${field('subject', 'Subject')}${area('text', 'Text', 6)}${area('html', 'The same as HTML, if there is to be any', 6)}
<p><label><input type="checkbox" name="list" ${letter.list ? 'checked' : ''}> sent to many, as a newsletter</label></p><p><button>Send</button></p></form></html>`;
}
