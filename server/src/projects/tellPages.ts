import type { ArtefactId } from '@caderno/core/artefacts';
import type { ReviewNumber } from '@caderno/core/reviews';
import { execute, type UnitOfWork } from '../database/index.ts';

/** The channel on which servers tell each other what pages want to know and no entry of the journal says. */
export const PAGES_CHANNEL = 'caderno_pages';

/** What pages are told, by the names of their events. */
export type PageNews = { readonly event: 'remarked'; readonly data: { readonly id: ArtefactId } } | { readonly event: 'reviewed'; readonly data: { readonly review: ReviewNumber } } | { readonly event: 'frozen'; readonly data: Readonly<Record<string, never>> } | { readonly event: 'delivered'; readonly data: { readonly people: readonly string[] } };

/** Tells every page of a project, once the transaction is through. */
export async function tellPages(work: UnitOfWork, projectId: string, news: PageNews): Promise<void> {
  await execute(work, `SELECT pg_notify($1, json_build_object('project', key, 'news', $3::json)::text) FROM project WHERE id = $2`, [PAGES_CHANNEL, projectId, JSON.stringify(news)]);
}
