import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EMPTY_CASE, isUse, usedBy, type CaseContent } from '../cases/index.ts';
import { EMPTY_SHARED, placesRenamed, renameEverywhere, type RenameGrounds, type Renaming, type StepsOwnerId, type Reusable, type SharedContent, type Used } from './index.ts';
import { C, S, anyName, callOf, graph, libraryOf, line, newUse, parameter, readOut, root, row } from './testGraphs.ts';

function groundsOf(artefacts: readonly Reusable[], constants: ReadonlyMap<string, string> = new Map()): RenameGrounds {
  const byId = new Map(artefacts.map((a) => [a.id, a]));
  const library = new Map(artefacts.map((a): [string, Used] => [a.id, { ...a, version: 1, withdrawn: false }]));
  const usersOf = (id: StepsOwnerId) => artefacts.filter((a) => a.content.steps.some((s) => isUse(s) && usedBy(s) === id));
  return { library, constants, usersOf, artefact: (id) => byId.get(id) };
}

const aCase = (n: number, part: Partial<CaseContent>): Reusable => ({ kind: 'case', id: C(n), content: { ...EMPTY_CASE, ...part } });
const shared = (n: number, part: Partial<SharedContent>): Reusable => ({ kind: 'shared', id: S(n), content: { ...EMPTY_SHARED, ...part } });

test('on random graphs of uses a renaming changes nothing but the name', () => {
  let done = 0;
  fc.assert(
    fc.property(root, graph, fc.nat(8), fc.constantFrom('a', 'b', 'c'), (content, library, pick, name) => {
      const artefacts: Reusable[] = [{ kind: 'case', id: C(99), content: { ...EMPTY_CASE, ...content } }, ...[...library.values()].map((u): Reusable => (u.kind === 'case' ? { kind: 'case', id: u.id, content: u.content } : { kind: 'shared', id: u.id, content: u.content }))];
      const start = artefacts[pick];
      fc.pre(start?.content.parameters.some((p) => p.name === name) === true);
      if (start === undefined) return;
      const renaming = renameEverywhere(start.id, name, 'z', groundsOf(artefacts));
      expect(renaming.kind).toBe('done');
      if (renaming.kind !== 'done') return;
      done += 1;
      const now = artefacts.map((a) => renaming.renamed.find((r) => r.artefact.id === a.id)?.artefact ?? a);
      const libraryNow = groundsOf(now).library;
      for (const [i, before] of artefacts.entries()) {
        const after = now[i];
        if (before.kind === 'case' && after?.kind === 'case') expect(anyName(readOut(after.content, libraryNow))).toEqual(anyName(readOut(before.content, library)));
      }
      const own = now.find((a) => a.id === start.id);
      expect(own?.content.parameters.map((p) => p.name)).toEqual(start.content.parameters.map((p) => (p.name === name ? 'z' : p.name)));
      // Back again, and everything is as it was.
      const back = renameEverywhere(start.id, 'z', name, groundsOf(now));
      if (back.kind === 'done') expect(now.map((a) => back.renamed.find((r) => r.artefact.id === a.id)?.artefact ?? a)).toEqual(artefacts);
    }),
    { numRuns: 400 },
  );
  expect(done).toBeGreaterThan(100);
});

describe('a parameter that callers know by its name, or give an argument to', () => {
  const signIn = shared(4, { purpose: 'Signs <user> in', parameters: [parameter('user')], steps: [line('a', 'sign in as <user>')] });
  const hands = aCase(1, { parameters: [parameter('user')], rows: [row('one', { user: 'a clerk' })], steps: [newUse('u', 4), line('b', 'greet <user>')] });
  const gives = aCase(2, { parameters: [parameter('who')], steps: [newUse('u', 4, { user: 'the <who>' })] });
  const apart = aCase(3, { parameters: [parameter('user')], steps: [line('c', 'look at <user>')] });
  const rename = (to: string, ...artefacts: readonly Reusable[]): Renaming => renameEverywhere(S(4), 'user', to, groundsOf(artefacts));

  test('is renamed with them, and nowhere else', () => {
    const renaming = rename('member', signIn, hands, gives, apart);
    if (renaming.kind !== 'done') throw new Error(renaming.kind);
    expect(renaming.renamed.map((r) => [r.artefact.id, r.hasIt])).toEqual([[S(4), true], [C(1), true], [C(2), false]]);
    const [own, handed, given] = renaming.renamed.map((r) => r.artefact);
    expect(own?.content).toMatchObject({ purpose: 'Signs <member> in', parameters: [{ name: 'member' }], steps: [{ action: 'sign in as <member>' }] });
    expect(given?.content.steps).toEqual([newUse('u', 4, { member: 'the <who>' })]);
    expect(handed?.content).toMatchObject({ parameters: [{ name: 'member' }], steps: [{ kind: 'shared' }, { action: 'greet <member>' }] });
    expect(own && placesRenamed(signIn, own)).toBe(3);
  });
  test('is not renamed onto a name that means something there', () => {
    const knows = aCase(1, { ...hands.content, parameters: [parameter('user'), parameter('member')] } as Partial<CaseContent>);
    expect(rename('member', signIn, knows)).toEqual({ kind: 'hindered', hindrances: [{ code: 'name_in_use', id: C(1), name: 'member' }] });
    const says = aCase(1, { parameters: [parameter('user')], steps: [newUse('u', 4), line('b', 'write <member>')] });
    expect(rename('member', signIn, says)).toMatchObject({ kind: 'hindered', hindrances: [{ code: 'name_in_use', id: C(1) }] });
    const lost = aCase(1, { steps: [newUse('u', 4, { user: 'x', member: 'goes nowhere' })] });
    expect(rename('member', signIn, lost)).toMatchObject({ kind: 'hindered', hindrances: [{ code: 'name_in_use', id: C(1) }] });
    expect(rename('a > b', signIn)).toEqual({ kind: 'hindered', hindrances: [{ code: 'name_invalid', name: 'a > b' }] });
    expect(renameEverywhere(S(4), 'user', 'office', groundsOf([signIn], new Map([['office', 'Fonte']])))).toMatchObject({ kind: 'hindered', hindrances: [{ code: 'name_of_constant', name: 'office' }] });
  });
  test('is not renamed under a pinned version that takes it by its name, and not in users of one', () => {
    const pinned = { ...newUse('u', 4), pinned: 1 } as const;
    const library = new Map<string, Used>([...libraryOf({ 4: signIn.content as SharedContent }), ['S-4@1', { kind: 'shared', id: S(4), version: 1, withdrawn: false, content: signIn.content as SharedContent }]]);
    const user = aCase(1, { parameters: [parameter('user')], steps: [pinned] });
    const grounds: RenameGrounds = { ...groundsOf([signIn, user]), library };
    expect(renameEverywhere(C(1), 'user', 'member', grounds)).toEqual({ kind: 'hindered', hindrances: [{ code: 'pinned_takes_it', id: C(1), used: S(4), version: 1 }] });
    const follower = { ...newUse('u', 4), pinned: 'agreed' } as const;
    const following = aCase(1, { parameters: [parameter('user')], steps: [follower] });
    expect(renameEverywhere(C(1), 'user', 'member', { ...groundsOf([signIn, following]), library: new Map([...library, ['S-4@agreed', library.get('S-4@1')!]]) })).toMatchObject({ hindrances: [{ code: 'pinned_takes_it', version: 'agreed' }] });
    const own = renameEverywhere(S(4), 'user', 'member', grounds);
    expect(own.kind === 'done' && own.renamed.map((r) => r.artefact.id)).toEqual([S(4)]);
  });
  test('what uses it is asked for before anything is said', () => {
    expect(renameEverywhere(S(4), 'user', 'member', { ...groundsOf([signIn]), usersOf: () => null })).toEqual({ kind: 'missing', usersOf: [S(4)] });
    // A row that gives it a value shields what is called from the caller.
    const fixed = aCase(5, { parameters: [parameter('user')], rows: [row('r', { user: 'x' })], steps: [line('a', '<user>')] });
    const caller = aCase(6, { parameters: [parameter('user')], steps: [callOf('c', 5, { kind: 'every' })] });
    const renaming = renameEverywhere(C(5), 'user', 'member', groundsOf([fixed, caller]));
    expect(renaming.kind === 'done' && renaming.renamed.map((r) => r.artefact.id)).toEqual([C(5)]);
  });
});
