import type { Server } from 'node:http';
import express from 'express';
import type { Logger } from 'pino';
import type { Metrics } from '../operating/metrics';

/** Shows the server's numbers at /metrics, on a port of their own. */
export function showMetrics(metrics: Metrics, port: number, host: string, log: Logger): Server {
  const app = express();
  app.disable('x-powered-by');
  app.get('/metrics', async (_request, response) => {
    response.type(metrics.contentType).send(await metrics.text());
  });
  return app.listen(port, host, (error?: Error) => {
    if (error) log.error({ err: error }, 'no numbers: cannot listen');
    else log.info({ port }, 'showing numbers');
  });
}
