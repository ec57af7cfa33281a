import { FindRequest, FindResponse, type Passage } from '@dorvel/core/model';
import { find, passageOf, readQuery, tagCounts } from '@dorvel/core/search';
import { Router } from 'express';
import type { FindableLibrary } from '../library/findable';
import { accountOf } from './guard';

/** So many are named: nobody reads further down, and each takes room on the way. */
const MOST_NAMED = 1000;

/** Finding in the whole library, for devices that have only a part of it. */
export function findRoutes(findable: (accountId: string) => FindableLibrary): Router {
  const router = Router();

  router.post('/find', async (request, response) => {
    const { from, passages: wanted, ...question } = FindRequest.parse(request.body);
    const library = findable(accountOf(response).id);
    const now = Date.now();
    const facts = await library.facts();
    const query = readQuery(question.written, { ...question, now });
    const { by, hits, also, marks } = await find(query, question.scope, library.source, facts, now);
    const passages: Record<string, Passage | null> = {};
    for (const { id } of [...hits, ...also].slice(from, from + wanted)) {
      const text = marks.length > 0 ? await library.textOf(id) : null;
      passages[id] = text && passageOf(text.text, text.language, marks);
    }
    const answer = {
      by,
      ids: hits.slice(0, MOST_NAMED).map(({ id }) => id),
      count: hits.length > MOST_NAMED ? hits.length : null,
      also: also.map(({ id }) => id),
      faults: query.faults,
      tags: tagCounts(hits.flatMap(({ id }) => facts.get(id) ?? [])),
      withoutText: 0,
    };
    response.json(FindResponse.parse({ answer, passages }));
  });

  return router;
}
