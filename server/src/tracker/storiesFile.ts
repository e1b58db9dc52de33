import type { SourceDocument } from '@caderno/core/exchange';
import { z } from 'zod';
import type { Story } from './storyTracker.ts';

/** The name under which a tracker's stories wait to be imported; also the name of their source. */
export const STORIES_FILE = 'Story tracker';

const COLUMNS = ['id', 'title', 'text', 'kind', 'labels', 'status', 'link'] as const;

const storySchema = z.array(
  z.object({ key: z.string(), title: z.string(), description: z.string(), criteria: z.array(z.string()), labels: z.array(z.string()), status: z.string(), link: z.string() }),
);

/** Stories as the bytes of a file, so that they are imported like one. */
export function storiesFile(stories: readonly Story[]): Uint8Array {
  return Buffer.from(JSON.stringify(stories));
}

/** Stories as a document: acceptance criteria stand below the description as a list. */
export function readStoriesFile(bytes: Uint8Array): SourceDocument {
  const stories = storySchema.parse(JSON.parse(Buffer.from(bytes).toString('utf8')));
  const records = stories.map((story, i) => ({
    line: i + 1,
    cells: [story.key, story.title, storyText(story), 'user story', story.labels.join(', '), story.status, story.link],
    place: { id: story.key, parent: null },
    relations: [],
  }));
  return { format: 'stories', columns: [...COLUMNS], records, sheets: [], problems: [], types: null };
}

function storyText({ description, criteria }: Story): string {
  const list = criteria.map((criterion) => `- ${criterion.replaceAll(/\s*\n\s*/g, ' ').trim()}`).join('\n');
  return [description.trim(), list].filter((part) => part !== '').join('\n\n');
}
