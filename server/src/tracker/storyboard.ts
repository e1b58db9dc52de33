import type { TrackerConnection } from '@caderno/contract';
import { z } from 'zod';
import { WHOLE_PATIENCE_MS, readJson, type Asking, type Story, type StoryTracker } from './storyTracker.ts';
import { TrackerFailed } from './trackerFailed.ts';

const text = (most: number) => z.string().max(most);

const storySchema = z.object({
  key: text(100).min(1),
  title: text(1_000),
  description: text(100_000).default(''),
  acceptance: z.array(text(10_000)).max(200).default([]),
  labels: z.array(text(200)).max(100).default([]),
  status: text(200).default(''),
});
const storyPage = z.object({ stories: z.array(storySchema).max(500), page: z.int(), pages: z.int().max(1_000) });
const defectPage = z.object({ defects: z.array(z.object({ key: text(100).min(1), title: text(1_000), status: text(200).default('') })).max(500) });

/** Pages read at most: a tracker that always has one more is not followed for ever. */
const MOST_PAGES = 40;

/** The adapter of the Storyboard stand-in: pages of JSON below `/projects/<project>`. */
export function storyboard({ address, project }: TrackerConnection, allowed: readonly string[]): StoryTracker {
  const asking = (): Asking => ({ allowed, until: performance.now() + WHOLE_PATIENCE_MS });
  const at = (path: string): URL => new URL(`projects/${encodeURIComponent(project)}/${path}`, address.endsWith('/') ? address : `${address}/`);
  return {
    stories: async () => {
      const stories = new Map<string, Story>();
      const all = asking();
      for (let page = 1; ; page += 1) {
        if (page > MOST_PAGES) throw new TrackerFailed('too_large');
        const answer = await readJson(at(`stories?page=${page}`), storyPage, all);
        for (const { acceptance, ...story } of answer.stories) stories.set(story.key, { ...story, criteria: acceptance, link: at(`stories/${encodeURIComponent(story.key)}`).href });
        if (page >= answer.pages) return [...stories.values()];
      }
    },
    defects: async (words) => {
      const { defects } = await readJson(at(`defects?words=${encodeURIComponent(words)}`), defectPage, asking());
      return defects.map(({ key, title, status }) => ({ id: key, title, status, link: at(`defects/${encodeURIComponent(key)}`).href }));
    },
  };
}
