import { Hono } from 'hono';
import { z } from 'zod';

const story = z.object({
  key: z.string(),
  title: z.string(),
  description: z.string(),
  acceptance: z.array(z.string()),
  labels: z.array(z.string()),
  status: z.string(),
  changed: z.string().default('2026-01-05T09:00:00Z'),
});
const defect = z.object({ key: z.string(), title: z.string(), status: z.string() });

/** What the simulated tracker holds, as the demo's file has it; keys it does not know are left aside. */
export const boardSchema = z.object({ project: z.string(), stories: z.array(story), defects: z.array(defect) });
export type Board = z.infer<typeof boardSchema>;

/** How well it behaves: every so many requests it fails, or takes its time; 0 is never. */
export interface Mood {
  readonly failsEvery: number;
  readonly slowEvery: number;
  readonly slowMs: number;
}

const STORIES_A_PAGE = 3;
const change = story.partial().omit({ key: true });

/** A small story tracker of its own: stories in pages, defects by words, changes by PATCH, and now and then a bad moment. */
export function createStoryboard(board: Board, mood: Mood): Hono {
  const stories = new Map(board.stories.map((s) => [s.key, s]));
  let requests = 0;
  const app = new Hono();
  app.use(async (c, next) => {
    requests += 1;
    if (mood.slowEvery > 0 && requests % mood.slowEvery === 0) await new Promise((resolve) => setTimeout(resolve, mood.slowMs));
    if (mood.failsEvery > 0 && requests % mood.failsEvery === 0) return c.json({ error: 'too busy' }, 503);
    return next();
  });
  app.get('/projects/:project/stories', (c) => {
    if (c.req.param('project') !== board.project) return c.json({ error: 'no such project' }, 404);
    const all = [...stories.values()];
    const page = Math.max(1, Number(c.req.query('page') ?? 1));
    return c.json({ stories: all.slice((page - 1) * STORIES_A_PAGE, page * STORIES_A_PAGE), page, pages: Math.max(1, Math.ceil(all.length / STORIES_A_PAGE)) });
  });
  app.get('/projects/:project/stories/:key', (c) => {
    const found = stories.get(c.req.param('key'));
    return found === undefined ? c.json({ error: 'no such story' }, 404) : c.json(found);
  });
  app.patch('/projects/:project/stories/:key', async (c) => {
    const found = stories.get(c.req.param('key'));
    if (found === undefined) return c.json({ error: 'no such story' }, 404);
    const changed = story.parse({ ...found, ...change.parse(await c.req.json()) });
    stories.set(found.key, changed);
    return c.json(changed);
  });
  app.get('/projects/:project/defects', (c) => {
    const words = (c.req.query('words') ?? '').toLowerCase().split(/\s+/).filter(Boolean);
    return c.json({ defects: board.defects.filter((d) => words.every((w) => `${d.key} ${d.title}`.toLowerCase().includes(w))) });
  });
  app.get('/projects/:project/defects/:key', (c) => {
    const found = board.defects.find((d) => d.key === c.req.param('key'));
    return found === undefined ? c.json({ error: 'no such defect' }, 404) : c.json(found);
  });
  return app;
}
