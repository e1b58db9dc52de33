import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ARTEFACT_KINDS, artefactId, isSuspect, kindOfId, parseArtefactId, type ArtefactId, type ArtefactKind } from '../artefacts/index.ts';
import { attachmentId } from '../attachments/index.ts';
import { newCover, plainStep, stepId, type Step } from '../cases/index.ts';
import { ownFieldId, type OwnField } from '../fields/index.ts';
import { KINDS, linksOf, meaningOf, withTargets, type Content, type KindAndContent } from '../kinds/index.ts';
import { asJson, sameJson } from '../versions/index.ts';
import { Gathering, Settling, constantsIn, openCarryConflicts, planCarry, type CarriedArtefact, type CarryChoices, type CarryPlan, type FirstWritten, type ReadVersion, type Standing } from './index.ts';

interface Held {
  readonly versions: KindAndContent[];
  readonly first: FirstWritten;
  firstVersions: ReadonlyMap<number, number>;
  base: KindAndContent | null;
}

/** A project in memory, which does with plans what the server does. */
class Project {
  readonly held = new Map<ArtefactId, Held>();
  readonly id: string;
  constructor(id: string) {
    this.id = id;
  }

  write(id: ArtefactId, content: Content): void {
    const value = { kind: kindOfId(id), content } as KindAndContent;
    const there = this.held.get(id);
    if (there === undefined) this.held.set(id, { versions: [value], first: { project: this.id, id }, firstVersions: new Map(), base: null });
    else there.versions.push(value);
  }

  head(id: ArtefactId): KindAndContent {
    return this.held.get(id)!.versions.at(-1)!;
  }

  /** The version with which the present meaning of an artefact began. */
  meaningSince(id: ArtefactId): number {
    const versions = this.held.get(id)?.versions ?? [];
    let since = versions.length;
    while (since > 1 && sameJson(asJson(meaningOf(versions[since - 2]!)), asJson(meaningOf(versions[since - 1]!)))) since -= 1;
    return since;
  }

  carry(roots: readonly ArtefactId[]): CarriedArtefact[] {
    const gathering = new Gathering(roots);
    for (let wanted = gathering.wanted(); wanted.length > 0; wanted = gathering.wanted()) {
      const known = wanted.filter((w) => this.held.has(w.id));
      gathering.take(
        known.map(({ id }) => {
          const { versions, first, firstVersions, base } = this.held.get(id)!;
          return { id, head: versions.length, meaningSince: this.meaningSince(id), under: null, position: 0, first, isOurs: first.project === this.id, firstVersions: new Map([...firstVersions].map(([f, here]) => [here, f])), base };
        }),
        known.flatMap(({ id, version }) => {
          const at = version ?? this.held.get(id)!.versions.length;
          const value = this.held.get(id)!.versions[at - 1];
          return value === undefined ? [] : [{ id, version: at, value }];
        }),
      );
    }
    return gathering.artefacts();
  }

  plan(artefacts: readonly CarriedArtefact[], choices?: CarryChoices): CarryPlan {
    const last = (kind: ArtefactKind): number => Math.max(0, ...[...this.held.keys()].map((id) => (kindOfId(id) === kind ? Number(id.slice(2)) : 0)));
    const firstNew = Object.fromEntries(ARTEFACT_KINDS.map((kind) => [kind, last(kind) + 1])) as Record<ArtefactKind, number>;
    const here = (first: FirstWritten) => {
      const id = first.project === this.id ? first.id : [...this.held].find(([, h]) => h.first.project === first.project && h.first.id === first.id)?.[0];
      const held = id === undefined ? undefined : this.held.get(id);
      if (id === undefined || held === undefined) return null;
      const left = artefacts.find((a) => a.first.project === first.project && a.first.id === first.id)?.versions.at(-1)?.first ?? 0;
      const ours = first.project === this.id;
      return { id, head: held.versions.length, value: held.versions.at(-1)!, base: ours ? (held.versions[left - 1] ?? null) : held.base, versions: ours ? new Map(held.versions.map((_, i) => [i + 1, i + 1])) : held.firstVersions };
    };
    return planCarry({ artefacts }, { here, firstNew, settle: (value) => value }, choices);
  }

  bring(artefacts: readonly CarriedArtefact[], choices?: CarryChoices): CarryPlan {
    const plan = this.plan(artefacts, choices);
    for (const p of plan.planned) {
      if (p.kind === 'added') this.held.set(p.id, { versions: [...p.contents], first: p.carried.first, firstVersions: p.versions, base: p.base });
      else if (p.kind === 'changed') this.held.get(p.id)!.versions.push(p.value);
      const held = this.held.get(p.id)!;
      if (held.first.project !== this.id) Object.assign(held, { firstVersions: p.versions, base: p.base });
    }
    return plan;
  }
}

const content = <K extends ArtefactKind>(kind: K, more: Partial<(typeof KINDS)[K]['empty']>) => ({ ...KINDS[kind].empty, ...more }) as Content;
const kinds = (plan: CarryPlan): Record<string, number> => plan.planned.reduce<Record<string, number>>((counts, p) => ({ ...counts, [p.kind]: (counts[p.kind] ?? 0) + 1 }), {});
const ofKind = (project: Project, kind: ArtefactKind): ArtefactId[] => [...project.held.keys()].filter((id) => kindOfId(id) === kind);
const use = (shared: number, pinned: number | null): Step => ({ kind: 'shared', id: stepId(`u${shared}`), shared: artefactId('shared', shared), pinned, arguments: [] });

/** A module: two requirements, conditions on them, shared steps in shared steps, a case that uses and covers. */
function module(): Project {
  const from = new Project('alta');
  for (const n of [1, 2, 3]) from.write(`R-${n}`, content('requirement', { title: `R ${n}`, relations: n === 1 ? [{ id: 'x', kind: 'see', to: 'R-3' }] : [] }));
  for (const n of [4, 5]) from.write(`K-${n}`, content('condition', { title: `K ${n}`, requirements: [{ id: `R-${n - 3}` as 'R-1', seenVersion: 1, anchor: null }] }));
  from.write('S-7', content('shared', { title: 'Sign in', steps: [plainStep(stepId('a'), 'sign in')] }));
  from.write('S-8', content('shared', { title: 'Open', steps: [use(7, null)] }));
  from.write('C-9', content('case', { title: 'Pay', steps: [use(8, null), plainStep(stepId('b'), 'pay')], covers: [newCover('K-4', 1), newCover('K-5', 1)] }));
  return from;
}

describe('a module carried to another project', () => {
  test('brings all it uses under ids that are free there, and what they name leads to those', () => {
    const [from, to] = [module(), new Project('baixa')];
    to.write('R-1', content('requirement', { title: 'of its own' }));
    const plan = to.bring(from.carry(['C-9']));
    expect(kinds(plan)).toEqual({ added: 7 });
    expect(plan.linksOut).toBe(1);
    expect([ofKind(to, 'requirement'), ofKind(to, 'condition'), ofKind(to, 'shared'), ofKind(to, 'case')]).toEqual([['R-1', 'R-2', 'R-3'], ['K-1', 'K-2'], ['S-1', 'S-2'], ['C-1']]);
    expect(linksOf(to.head('C-1')).map((l) => l.to)).toEqual(['K-1', 'K-2', 'S-2']);
    expect(linksOf(to.head('S-2'))[0]?.to).toBe('S-1');
    expect(linksOf(to.head('K-2'))[0]?.to).toBe('R-3');
    expect(linksOf(to.head('R-2'))).toEqual([]);
  });

  test('carried again it changes nothing; what the file changed comes, what was changed here stays, both ask', () => {
    const [from, to] = [module(), new Project('baixa')];
    to.bring(from.carry(['C-9']));
    expect(kinds(to.bring(from.carry(['C-9'])))).toEqual({ same: 7 });
    to.write('S-1', content('shared', { title: 'Sign in here', steps: [plainStep(stepId('a'), 'sign in')] }));
    from.write('S-8', content('shared', { title: 'Open it', steps: [use(7, null)] }));
    expect(kinds(to.bring(from.carry(['C-9'])))).toEqual({ same: 6, changed: 1 });
    expect([to.head('S-1').content.title, to.head('S-2').content.title]).toEqual(['Sign in here', 'Open it']);
    from.write('S-7', content('shared', { title: 'Sign in there', steps: [plainStep(stepId('a'), 'sign in at the counter')] }));
    const file = from.carry(['C-9']);
    expect(openCarryConflicts(to.plan(file), new Map())).toEqual(['S-7']);
    const [mine, theirs] = (['mine', 'theirs'] as const).map((side) => to.plan(file, new Map([['S-7', side]])).planned.find((p) => p.id === 'S-1'));
    expect(mine).toMatchObject({ value: { content: { title: 'Sign in here', steps: [{ action: 'sign in at the counter' }] } } });
    expect(theirs).toMatchObject({ value: { content: { title: 'Sign in there' } } });
  });

  test('comes home changed as a change of what it was, without what stayed out on the way', () => {
    const [from, to] = [module(), new Project('baixa')];
    to.bring(from.carry(['C-9']));
    const title = 'R 1 as it is in the lower town';
    to.write('R-1', { ...to.head('R-1').content, title });
    from.write('R-2', content('requirement', { title: 'R 2 since' }));
    const back = from.bring(to.carry(['C-1']));
    expect(kinds(back)).toEqual({ changed: 1, same: 6 });
    expect(from.head('R-1').content).toMatchObject({ title, relations: [{ to: 'R-3' }] });
    expect(from.head('R-2').content.title).toBe('R 2 since');
    expect(from.held.size).toBe(8);
    // And to a third project, from either, once.
    const third = new Project('norte');
    third.bring(to.carry(['C-1']));
    expect(kinds(third.plan(from.carry(['C-9'])))['added']).toBeUndefined();
  });

  test('a pin keeps the version it means, and a link that is suspect stays suspect', () => {
    const [from, to] = [module(), new Project('baixa')];
    from.write('C-9', { ...from.head('C-9').content, steps: [use(7, 1), plainStep(stepId('b'), 'pay')] } as Content);
    from.write('S-7', content('shared', { title: 'Sign in', steps: [plainStep(stepId('a'), 'sign in with a card')] }));
    from.write('K-4', { ...from.head('K-4').content, title: 'K 4 means more' });
    to.bring(from.carry(['C-9']));
    const used = to.head('C-1');
    expect(linksOf(used).find((l) => l.type === 'uses')).toMatchObject({ to: 'S-1', pinned: 1 });
    expect(to.held.get('S-1')?.versions.map((v) => (v.kind === 'shared' && v.content.steps[0]?.kind === 'step' ? v.content.steps[0].action : ''))).toEqual(['sign in', 'sign in with a card']);
    const suspects = linksOf(used).filter((l) => l.type === 'covers').map((l) => isSuspect(l, { meaningSince: to.meaningSince(l.to) }));
    expect(suspects).toEqual([true, false]);
    expect(kinds(to.plan(from.carry(['C-9'])))).toEqual({ same: 6 });
    // A new meaning there makes the links of this project's own cases suspect, not that of the case which comes with it.
    to.write('C-2', content('case', { title: 'ours', covers: [newCover('K-2', 1)] }));
    from.write('K-5', { ...from.head('K-5').content, title: 'K 5 means more' });
    from.write('C-9', { ...from.head('C-9').content, covers: [newCover('K-4', 1), newCover('K-5', 2)] } as Content);
    to.bring(from.carry(['C-9']));
    const now = (id: ArtefactId): boolean[] => linksOf(to.head(id)).filter((l) => l.type === 'covers').map((l) => isSuspect(l, { meaningSince: to.meaningSince(l.to) }));
    expect([now('C-1'), now('C-2')]).toEqual([[true, false], [true]]);
  });
});

describe('what is gathered', () => {
  const standing = (id: ArtefactId, more: Partial<Standing> = {}): Standing => ({ id, head: 1, meaningSince: 1, under: null, position: 0, first: { project: 'alta', id }, isOurs: true, firstVersions: new Map(), base: null, ...more });
  const version = (id: ArtefactId, of: Content, at = 1): ReadVersion => ({ id, version: at, value: { kind: kindOfId(id), content: of } as KindAndContent });

  test('requirements stand in the order of their outline below what they stand below, others by kind and number', () => {
    const gathering = new Gathering(['C-10', 'C-9', 'R-5', 'R-6']);
    expect(gathering.wanted()).toHaveLength(4);
    gathering.take(
      [standing('C-10'), standing('C-9'), standing('R-5', { under: 'R-2', position: 2 }), standing('R-6', { under: 'R-2', position: 1 })],
      [version('C-10', content('case', { title: 'a' })), version('C-9', content('case', { title: 'b' })), version('R-5', content('requirement', { title: 'c' })), version('R-6', content('requirement', { title: 'd' }))],
    );
    expect(gathering.wanted()).toEqual([{ id: 'R-2', version: null }]);
    gathering.take([standing('R-2')], [version('R-2', content('requirement', { title: 'above' }))]);
    expect(gathering.wanted()).toEqual([]);
    expect(gathering.artefacts().map((a) => [a.id, a.under])).toEqual([['R-2', null], ['R-6', 'R-2'], ['R-5', 'R-2'], ['C-9', null], ['C-10', null]]);
  });

  test('what is gone is asked for once; whoever names it comes without it', () => {
    const gathering = new Gathering(['C-1']);
    gathering.wanted();
    gathering.take([standing('C-1')], [version('C-1', content('case', { title: 'x', steps: [use(4, null)], covers: [newCover('K-2', 1)] }))]);
    expect(gathering.wanted().map((w) => w.id).sort()).toEqual(['K-2', 'S-4']);
    gathering.take([], []);
    expect(gathering.wanted()).toEqual([]);
    expect(gathering.artefacts().map((a) => a.id)).toEqual(['C-1']);
    const to = new Project('baixa');
    expect(to.bring(gathering.artefacts()).linksOut).toBe(2);
    expect(to.head('C-1').content).toMatchObject({ steps: [], covers: [] });
  });

  test('a condition brings what it stands below in a checklist, a question what it is about', () => {
    const from = new Project('alta');
    from.write('R-1', content('requirement', { title: 'r' }));
    from.write('K-1', content('condition', { title: 'above' }));
    from.write('K-2', content('condition', { title: 'below', under: 'K-1' }));
    from.write('Q-1', content('question', { title: 'q', about: [{ kind: 'condition', id: 'K-2', items: [], holds: true }], settledIn: [{ id: 'R-1', version: 1 }] }));
    const file = from.carry(['Q-1']);
    expect(file.map((a) => a.id)).toEqual(['K-1', 'K-2', 'Q-1']);
    const to = new Project('baixa');
    to.write('K-1', content('condition', { title: 'of its own' }));
    to.bring(file);
    expect(to.head('K-3').content).toMatchObject({ under: 'K-2' });
    // Where it was settled did not come along: it is a fact of the project it comes from.
    expect(to.head('Q-1').content).toMatchObject({ about: [{ id: 'K-3' }], settledIn: [] });
  });
});

const number = fc.integer({ min: 1, max: 5 });
const edits = fc.array(fc.tuple(fc.constantFrom<ArtefactId>('R-1', 'R-2', 'K-4', 'K-5', 'S-7', 'S-8', 'C-9'), number), { maxLength: 8 });

test('whatever changed on one side only is the same on both afterwards, and a second time nothing happens', () => {
  fc.assert(
    fc.property(edits, fc.array(number, { maxLength: 3 }), (there, again) => {
      const [from, to] = [module(), new Project('baixa')];
      to.bring(from.carry(['C-9']));
      for (const [id, n] of there) from.write(id, { ...from.head(id).content, title: `${id} ${n}` });
      const file = from.carry(['C-9']);
      to.bring(file);
      for (const _ of again) expect(kinds(to.bring(from.carry(['C-9'])))).toEqual({ same: 7 });
      const idThere = (id: ArtefactId): ArtefactId => [...to.held].find(([, h]) => h.first.id === id)![0];
      for (const { id } of file) expect(to.head(idThere(id)).content.title).toBe(from.head(id).content.title);
      expect(kinds(from.plan(to.carry([idThere('C-9')])))).toEqual({ same: 7 });
    }),
    { seed: 17 },
  );
});

test('led elsewhere and back again a content is what it was, but for what it was cloned from', () => {
  const shift = (by: number) => ({ id: <I extends ArtefactId>(id: I) => artefactId(kindOfId(id), parseArtefactId(id)!.number + by) as I, version: (_: ArtefactId, version: number) => version + by });
  fc.assert(
    fc.property(number, number, (a, b) => {
      const value = { kind: 'case', content: { ...KINDS.case.empty, steps: [use(a, b), use(b, null)], covers: [newCover(`K-${a}`, b)], dependsOn: [{ id: `C-${b}` }], data: { set: `D-${a}`, pinned: b, columns: [] } } } as KindAndContent<'case'>;
      const there = withTargets(value, shift(3));
      expect(linksOf(there).map((l) => l.to)).toEqual(linksOf(value).map((l) => artefactId(kindOfId(l.to), parseArtefactId(l.to)!.number + 3)));
      expect(withTargets(there, shift(-3))).toEqual(value);
      expect(linksOf(withTargets(value, { id: () => null, version: (_, v) => v }))).toEqual([]);
    }),
    { seed: 17 },
  );
});

describe('what settles into the project', () => {
  const field = (id: string, name: string, more: Partial<OwnField> = {}): OwnField => ({ id: ownFieldId(id), name, of: ['case'], type: 'choice', choices: [{ id: 'c1', name: 'Gold' }, { id: 'c2', name: 'Tin' }], required: true, begins: 'c1', help: '', removed: false, ...more });
  const settled = (fields: readonly OwnField[]) => {
    let made = 0;
    return { fields, constants: [{ id: 'k', name: 'base', value: 'here', secret: false, description: '', others: {} }], depths: ['smoke'], priorities: ['high', 'medium', 'low'], people: new Set(['Rui M.']), hasFile: (id: string) => id === 'kept', newId: () => `new${++made}` };
  };
  const value = (own: Record<string, string>, owner = 'Rui M.'): KindAndContent<'case'> => ({ kind: 'case', content: { ...KINDS.case.empty, owner, own, attachments: [{ id: attachmentId('kept'), name: 'a', type: null, size: null }, { id: attachmentId('lost'), name: 'b', type: null, size: null }] } });

  test('fields are those of the same name and type, choices by their names; what is missing is made, and asks nobody to fill it in', () => {
    const here = [field('h', 'metal', { of: ['condition'], choices: [{ id: 'x', name: 'tin' }] })];
    const settling = new Settling({ fields: [field('f', 'Metal'), field('g', 'Colour', { type: 'text', choices: [] })], constants: [], depths: ['smoke', 'deep'], priorities: ['High', 'P0'] }, settled(here));
    expect(settling.settings.fields).toMatchObject([{ id: 'h', of: ['condition', 'case'], choices: [{ id: 'x', name: 'tin' }, { name: 'Gold' }] }, { name: 'Colour', required: false, begins: null }]);
    const [gold, colour] = [settling.settings.fields[0]!.choices[1]!.id, settling.settings.fields[1]!.id];
    expect(settling.settle(value({ f: 'c1', g: 'red' })).content.own).toEqual({ h: gold, [colour]: 'red' });
    expect(settling.settle(value({ f: 'c2' })).content.own).toEqual({ h: 'x' });
    expect(settling.settings.depths).toEqual(['smoke', 'deep']);
    expect(settling.settings.priorities).toEqual(['high', 'medium', 'low', 'P0']);
    const prior = (priority: string) => settling.settle({ kind: 'case', content: { ...KINDS.case.empty, priority } }).content.priority;
    expect([prior('High'), prior('P0'), prior('gone there')]).toEqual(['high', 'P0', 'gone there']);
  });

  test('what has no place stays out and is counted by its name', () => {
    const here = settled([field('h', 'Metal', { type: 'number' })]);
    const settling = new Settling({ fields: [field('f', 'Metal')], constants: [], depths: ['smoke'], priorities: [] }, here);
    expect(settling.settle(value({ f: 'c1' }, 'Somebody E.')).content).toMatchObject({ own: {}, owner: '', attachments: [{ id: 'kept' }] });
    expect(settling.staysOut).toEqual({ fields: new Map([['Metal', 1]]), people: new Map([['Somebody E.', 1]]), files: 1 });
    expect(settling.settings).toEqual({ fields: here.fields, constants: here.constants, depths: here.depths, priorities: here.priorities });
  });

  test('constants that stand in texts come along, a secret without its value, and one that is here keeps its own', () => {
    const constant = (name: string, secret = false) => ({ id: name, name, value: `${name} there`, secret, description: '', others: { cfg: 'x' } });
    const along = constantsIn([{ steps: [{ action: 'open <base> with <key>' }] }], [constant('base'), constant('key', true), constant('unused')]);
    expect(along.map((c) => c.name)).toEqual(['base', 'key']);
    expect(JSON.stringify(along)).not.toContain('key there');
    const { settings } = new Settling({ fields: [], constants: along, depths: [], priorities: [] }, settled([]));
    expect(settings.constants).toMatchObject([{ name: 'base', value: 'here' }, { name: 'key', value: '', secret: true, others: {} }]);
    const told = new Settling({ fields: [], constants: [constant('pin', true)], depths: [], priorities: [] }, settled([]));
    expect(JSON.stringify(told.settings)).not.toContain('pin there');
  });
});
