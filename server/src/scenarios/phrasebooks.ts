import { setImmediate as letOthersIn } from 'node:timers/promises';
import { isDeepStrictEqual } from 'node:util';
import { artefactId, type FeatureId } from '@caderno/core/artefacts';
import { NO_OWN_KINDS, OwnKinds, Phrasebook, alikePhrases, phraseUses, type PhraseKey } from '@caderno/core/scenarios';
import type { FoundPhrases, Phrases, WrittenTwiceAnswer } from '@caderno/contract';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { kindAndContentOrBroken } from '../artefacts/index.ts';
import { inSnapshot, selectRows } from '../database/index.ts';
import { readSettings } from '../projects/index.ts';

/** Projects whose phrases are kept in memory, those asked for last. */
const MOST_KEPT = 8;
/** Features read at a time: others are let in between. */
const AT_A_TIME = 25;
/** Uses that one answer tells. */
const MOST_USES = 2_000;

const headRow = z.object({ number: z.number(), head: z.number() });
const contentRow = z.object({ number: z.number(), head: z.number(), schema: z.number(), content: z.unknown() });

/** The phrases of a project as they were read, and of which version of each feature. */
interface Kept {
  readonly book: Phrasebook;
  readonly read: Map<number, number>;
  /** With which the phrases were taken out of the steps. */
  own: OwnKinds;
  /** Those who ask come one after the other. */
  last: Promise<unknown>;
  answer: Phrases | null;
  twice: WrittenTwiceAnswer | null;
}

/** The phrasebooks of projects. Only features that changed since somebody last asked are read again. */
export class Phrasebooks {
  readonly #db: Sequelize;
  readonly #kept = new Map<string, Kept>();

  constructor(db: Sequelize) {
    this.#db = db;
  }

  phrases(projectId: string): Promise<Phrases> {
    return this.#upToDate(projectId, (kept) => {
      if (kept.answer === null) {
        const phrases = kept.book.phrases();
        kept.answer = { phrases: phrases.map((p) => ({ ...p, holes: [...p.holes], kinds: { ...p.kinds } })), alike: alikePhrases(phrases).map((a) => ({ ...a, keys: [...a.keys] })) };
      }
      return kept.answer;
    });
  }

  uses(projectId: string, keys: readonly PhraseKey[]): Promise<FoundPhrases> {
    return this.#upToDate(projectId, ({ book }) => {
      const found = book.usesOf(new Set(keys));
      let left = MOST_USES;
      const features = found.flatMap(({ feature, uses }) => {
        const told = uses.slice(0, left);
        left -= told.length;
        return told.length === 0 ? [] : [{ id: feature, uses: told.map(({ key, scenario, line, text }) => ({ key, scenario, line, text })) }];
      });
      return { total: found.reduce((sum, f) => sum + f.uses.length, 0), features };
    });
  }

  writtenTwice(projectId: string): Promise<WrittenTwiceAnswer> {
    return this.#upToDate(projectId, (kept) => {
      if (kept.twice === null) {
        const { same, alike } = kept.book.writtenTwice();
        kept.twice = { same: same.map((places) => [...places]), alike: [...alike] };
      }
      return kept.twice;
    });
  }

  async #upToDate<T>(projectId: string, ask: (kept: Kept) => T): Promise<T> {
    const kept = this.#kept.get(projectId) ?? { book: new Phrasebook(), read: new Map<number, number>(), own: NO_OWN_KINDS, last: Promise.resolve(), answer: null, twice: null };
    this.#kept.delete(projectId);
    this.#kept.set(projectId, kept);
    for (const oldest of this.#kept.keys()) if (this.#kept.size > MOST_KEPT) this.#kept.delete(oldest);
    // What failed for whoever asked before is that one's to be told.
    const turn = kept.last.then(() => this.#catchUp(projectId, kept), () => this.#catchUp(projectId, kept)).then(() => ask(kept));
    kept.last = turn;
    return turn;
  }

  async #catchUp(projectId: string, kept: Kept): Promise<void> {
    const { kinds, heads } = await inSnapshot(this.#db, async (work) => ({
      kinds: (await readSettings(work, projectId)).settings.valueKinds,
      heads: await selectRows(work, headRow, `SELECT number, head FROM artefact WHERE project_id = $1 AND kind = 'feature' AND deleted_at IS NULL AND state <> 'withdrawn'`, [projectId]),
    }));
    if (!isDeepStrictEqual(kinds, kept.own.kinds)) {
      kept.own = new OwnKinds(kinds);
      for (const number of [...kept.read.keys()]) forget(kept, number);
    }
    const now = new Map(heads.map((h) => [h.number, h.head]));
    const gone = [...kept.read.keys()].filter((number) => !now.has(number));
    const stale = heads.filter((h) => kept.read.get(h.number) !== h.head).map((h) => h.number);
    if (gone.length + stale.length > 0) [kept.answer, kept.twice] = [null, null];
    for (const number of gone) forget(kept, number);
    for (let from = 0; from < stale.length; from += AT_A_TIME) {
      await this.#read(projectId, kept, stale.slice(from, from + AT_A_TIME));
      await letOthersIn();
    }
  }

  async #read(projectId: string, kept: Kept, numbers: readonly number[]): Promise<void> {
    const rows = await inSnapshot(this.#db, (work) =>
      selectRows(work, contentRow, `SELECT a.number, a.head, v.schema, v.content FROM artefact a JOIN artefact_version v ON v.artefact_id = a.id AND v.version = a.head WHERE a.project_id = $1 AND a.kind = 'feature' AND a.number = ANY($2)`, [projectId, numbers]),
    );
    for (const { number, head, schema, content } of rows) {
      const value = kindAndContentOrBroken('feature', schema, content);
      // What cannot be read has no phrases; it is marked where it is listed.
      if (value?.kind === 'feature') kept.book.put(idOf(number), phraseUses(value.content, kept.own));
      else kept.book.remove(idOf(number));
      kept.read.set(number, head);
    }
  }
}

function forget({ book, read }: Kept, number: number): void {
  book.remove(idOf(number));
  read.delete(number);
}

function idOf(number: number): FeatureId {
  return artefactId('feature', number);
}
