import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ARTEFACT_KINDS, isSuspect, type ArtefactId, type Pin } from '../artefacts/index.ts';
import { newCover, parameterId, plainStep, rowId, stepId, type Step } from '../cases/index.ts';
import { KINDS, linksOf, meaningOf, versionsNamedIn, withPinsOn, withTargetsSeen, wordsOf, type KindAndContent } from './index.ts';

const number = fc.integer({ min: 1, max: 9 });
const version = fc.integer({ min: 1, max: 6 });
const use: fc.Arbitrary<Step> = fc.tuple(number, number, fc.oneof(fc.option(version), fc.constant<Pin>('agreed'))).map(([id, of, pinned]) => ({ kind: 'shared', id: stepId(`u${id}`), shared: `S-${of}`, pinned, arguments: [] }));
const steps = fc.array(fc.oneof(use, fc.string().map((action) => plainStep(stepId('p'), action))), { maxLength: 6 });
const requirement = fc.tuple(number, version).map(([n, seenVersion]) => ({ id: `R-${n}` as const, seenVersion, anchor: null }));

const value: fc.Arbitrary<KindAndContent> = fc.oneof(
  fc.array(number).map((to): KindAndContent => ({ kind: 'requirement', content: { ...KINDS.requirement.empty, relations: to.map((n, i) => ({ id: `${i}`, kind: 'refines', to: `R-${n}` as const })) } })),
  fc.array(requirement).map((requirements): KindAndContent => ({ kind: 'condition', content: { ...KINDS.condition.empty, requirements } })),
  fc.tuple(steps, fc.array(fc.tuple(number, version)), fc.option(version)).map(([s, covers, pinned]): KindAndContent => ({ kind: 'case', content: { ...KINDS.case.empty, steps: s, covers: covers.map(([n, v]) => newCover(`K-${n}`, v)), data: { set: 'D-1', pinned, columns: [] } } })),
  number.map((n): KindAndContent => ({ kind: 'question', content: { ...KINDS.question.empty, about: [{ kind: 'requirement', id: `R-${n}`, words: '', holds: true }], settledIn: [{ id: `R-${n}`, version: 3 }] } })),
  steps.map((s): KindAndContent => ({ kind: 'shared', content: { ...KINDS.shared.empty, steps: s } })),
  fc.tuple(number, version).map(([n, seenVersion]): KindAndContent => ({ kind: 'dataSet', content: { ...KINDS.dataSet.empty, serves: [{ id: `K-${n}`, seenVersion, fields: [], outcome: null }] } })),
);

/** Slow and obvious: all places of a content that look like a link, wherever they are. */
function targetsWritten(content: object): Set<ArtefactId> {
  return new Set(JSON.stringify(content).match(/(?<=")[RKCQSD]-\d+(?=")/g) as ArtefactId[] | null);
}

test('all that a content names is linked to, once for each type, and nothing else is', () => {
  fc.assert(
    fc.property(value, (v) => {
      expect(new Set(linksOf(v).map((l) => l.to))).toEqual(targetsWritten(v.content));
    }),
    { seed: 16 },
  );
});

test('a use follows the latest where any of its steps does; otherwise the latest pin counts', () => {
  const pins = (...of: Pin[]) => linksOf({ kind: 'shared', content: { ...KINDS.shared.empty, steps: of.map((pinned, i) => ({ kind: 'shared', id: stepId(`${i}`), shared: 'S-2', pinned, arguments: [] })) } });
  expect(pins(2, 5, 3)).toEqual([{ to: 'S-2', type: 'uses', seenVersion: 1, pinned: 5 }]);
  expect(pins(2, null, 3)).toEqual([{ to: 'S-2', type: 'uses', seenVersion: 1, pinned: null }]);
  expect(pins(2, 'agreed', 3)).toEqual([{ to: 'S-2', type: 'uses', seenVersion: 1, pinned: 'agreed' }]);
  expect(pins('agreed', null)).toMatchObject([{ pinned: null }]);
});

describe('what is said to be still right', () => {
  test('is suspect no more, goes back for nobody, and nothing else is touched', () => {
    fc.assert(
      fc.property(value, version, (v, seen) => {
        const targets = linksOf(v).map((l) => l.to);
        const settled = withTargetsSeen(v, new Map(targets.map((id) => [id, seen])));
        linksOf(settled).forEach((link, i) => {
          const before = linksOf(v)[i]!;
          const isTrace = ['derives', 'covers', 'serves'].includes(link.type);
          expect(link).toEqual({ ...before, seenVersion: isTrace ? Math.max(before.seenVersion, seen) : 1 });
          if (isTrace) expect(isSuspect(link, { meaningSince: seen })).toBe(false);
        });
        expect(meaningOf(settled)).toEqual(meaningOf(v));
      }),
      { seed: 16 },
    );
  });

  test('a link saw an earlier meaning only when it is older than the present one', () => {
    expect([1, 2, 3].map((seenVersion) => isSuspect({ seenVersion }, { meaningSince: 2 }))).toEqual([true, false, false]);
    expect(isSuspect({ seenVersion: 1 }, undefined)).toBe(false);
  });
});

test('the versions a content names are those its trace links saw and its uses are pinned to, and where it came from', () => {
  const covers = [newCover('K-1', 4)];
  const pinned: Step = { kind: 'call', id: stepId('c'), case: 'C-2', pinned: 3, rows: { kind: 'mine' }, arguments: [] };
  const content = { ...KINDS.case.empty, covers, steps: [pinned, plainStep(stepId('p'), 'x')], data: { set: 'D-1', pinned: 2, columns: [] } as const, origin: { id: 'C-9', version: 7 } as const };
  expect(versionsNamedIn({ kind: 'case', content })).toEqual([{ id: 'K-1', version: 4 }, { id: 'C-2', version: 3 }, { id: 'D-1', version: 2 }, { id: 'C-9', version: 7 }]);
  fc.assert(
    fc.property(value, version, (v, to) => {
      const moved = withPinsOn(v, 'S-1', to);
      if (moved === null) return expect(linksOf(v).filter((l) => l.type === 'uses')).toEqual([]);
      const behind = (of: KindAndContent): unknown[] => versionsNamedIn(of).filter((n) => n.id === 'S-1' && n.version < to);
      expect(behind(moved)).toEqual([]);
      if (behind(v).length === 0) expect(moved).toBe(v);
    }),
    { seed: 16 },
  );
});

test('every kind is found by its own words, and an empty one by none', () => {
  for (const kind of ARTEFACT_KINDS) expect(wordsOf({ kind, content: KINDS[kind].empty } as KindAndContent).join('').trim()).toBe('');
  expect(wordsOf({ kind: 'requirement', content: { ...KINDS.requirement.empty, text: 'Readings', origin: { source: 'f', id: 'FC-12.3', link: '' } } })).toEqual(['Readings', '', 'FC-12.3', 'FC 12 3']);
  const row = { id: rowId('r'), name: 'low', description: 'below the limit', cells: { [parameterId('p')]: '007' }, mark: null, aside: false };
  expect(wordsOf({ kind: 'dataSet', content: { ...KINDS.dataSet.empty, purpose: 'limits', rows: [row] } })).toEqual(['limits', 'low', 'below the limit']);
});
