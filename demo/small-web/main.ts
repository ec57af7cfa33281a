import { createSmallWeb } from './server';

const port = Number(process.env.SMALL_WEB_PORT ?? 4810);
const server = createSmallWeb().listen(port, '127.0.0.1', (error?: Error) => {
  if (error) throw error;
  console.log(`The small web stands on port ${port}.`);
});
const stop = () => {
  server.close(() => process.exit(0));
  server.closeAllConnections();
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
