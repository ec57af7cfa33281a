import { letterBox } from './letter-box';
import { createSmallWeb } from './server';

const port = Number(process.env.SMALL_WEB_PORT ?? 4810);
const mailPort = Number(process.env.DORVEL_MAIL_PORT ?? port + 15);
const letterPort = Number(process.env.DORVEL_LETTER_PORT ?? port + 16);
const letters = letterBox();
letters.server.on('error', (error: NodeJS.ErrnoException) => {
  if (error.syscall === 'listen') throw error;
  // A sender that goes away in the middle of a letter ends that letter, and not the small web.
  console.warn(`A letter did not arrive whole: ${error.message}`);
});
letters.server.listen(letterPort, '127.0.0.1');
const server = createSmallWeb(mailPort, letters.router).listen(port, '127.0.0.1', (error?: Error) => {
  if (error) throw error;
  console.log(`The small web stands on port ${port}.`);
});
const stop = () => {
  letters.server.close();
  server.close(() => process.exit(0));
  server.closeAllConnections();
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
