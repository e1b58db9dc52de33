import { describe, expect, test } from '@jest/globals';
import { FilesBeside } from '../attachments/index.ts';
import fc from 'fast-check';
import { FIRST_PRIORITIES, type ArtefactId, type ConditionId, type RequirementId } from '../artefacts/index.ts';
import { attachmentId, type Attachment } from '../attachments/index.ts';
import { EMPTY_CASE, newCover, plainStep, stepId, type CaseContent, type Step } from '../cases/index.ts';
import { GUESS_ALL, readFile, writeCsv, writeXlsx, type SourceDocument } from '../exchange/index.ts';
import { testField } from '../fields/testField/index.ts';
import { CASE_TABLE, addedCase, caseBaseOf, caseConflictKey, caseEntriesOf, caseMarkdown, caseTable, casesInMarkdown, changedCase, guessCaseMapping, openCaseConflicts, planCases, type CaseEntry, type CaseFileNames, type CaseFileProject, type CaseLayout, type CaseMapping, type ExistingCase } from './index.ts';

const FIELDS = [testField('Channel', 'choices', { choices: ['Kiosk', 'Web, new'] }), testField('Due', 'date'), testField('Notes', 'longText'), testField('Priority', 'choice', { choices: ['A', 'B'] })];
const LIMITS = { title: 300, name: 200, text: 200_000, line: 20_000, steps: 2_000 };
const REQUIREMENTS: Readonly<Record<string, RequirementId>> = { 'R-1': 'R-1', 'REQ-7': 'R-2', 'Valid reading, once': 'R-3' };
const names: CaseFileNames = { fields: FIELDS, priorities: FIRST_PRIORITIES, requirement: (name) => REQUIREMENTS[name] ?? null, condition: (id) => id !== 'K-99', used: (id) => id !== 'S-99' };
const CONDITIONS: Readonly<Record<string, readonly ConditionId[]>> = { 'R-1': ['K-1', 'K-2'], 'R-2': ['K-3'] };

function project(): CaseFileProject {
  let made = 0;
  return { fields: FIELDS, constants: new Set(['address']), versionOf: (id) => Number(id.slice(2)) + 10, conditionsOf: (id) => CONDITIONS[id] ?? [], newId: () => `n${(made += 1)}` };
}

const read = async (text: string, name = 'cases.csv', more: Partial<CaseMapping> = {}) => {
  const raw = await readFile(name, new TextEncoder().encode(text), GUESS_ALL, { table: CASE_TABLE });
  const document = raw.format === 'markdown' ? casesInMarkdown(raw) : raw;
  const mapping = { ...guessCaseMapping(document, 'p', 'cases', FIELDS, null), ...more };
  return { document, mapping, ...caseEntriesOf(document, mapping, names, LIMITS) };
};
/** An entry as one would note it down. */
const noted = ({ key, fields, steps }: CaseEntry): string => [`${key}: ${fields.title ?? ''}${(fields.module ?? '') === '' ? '' : ` [${fields.module ?? ''}]`}`, ...(steps ?? []).map((s) => (s.kind === 'plain' ? `  ${s.action}${s.expected === '' ? '' : ` => ${s.expected}`}` : `  → ${s.of} ${s.given.map((g) => `${g.id}=${g.value}`).join(',')}`))].join('\n');
const notedAll = (entries: readonly CaseEntry[]): string => entries.map(noted).join('\n');

describe('tables as people make them', () => {
  test.each<[string, string]>([
    ['a row a step, the cells of a case left empty below', 'Test Case ID,Title,Step,Action,Expected Result\nTC-1,Sign in,1,Open the page,It opens\n,,2,Give the password,\n,,3,,The door opens\nTC-2,Sign out,1,Choose Leave,The page says bye'],
    ['repeated in every row', 'Test Case ID;Title;Step #;Step Description;Expected\nTC-1;Sign in;1;Open the page;It opens\nTC-1;Sign in;2;Give the password;The door opens\nTC-2;Sign out;1;Choose Leave;The page says bye'],
    ['a title above the table, blank lines, and more columns', 'Cases of the office,,,,\n,,,,\nKey,Summary,Actual,Steps,Expected results\nTC-1,Sign in,,Open the page,It opens\n,,,Give the password,The door opens\n,,,,\nTC-2,Sign out,,Choose Leave,The page says bye'],
    ['a row a case, steps and results in cells by their numbers', 'ID,Name,Steps,Expected\nTC-1,Sign in,"1. Open the page\n2. Give the password","1. It opens\n2. The door opens"\nTC-2,Sign out,Choose Leave,The page says bye'],
    ['a row a case, a line a step, what is expected behind an arrow', 'ID,Name,Steps\nTC-1,Sign in,"- Open the page => It opens\n- Give the password ⇒ The door opens"\nTC-2,Sign out,"Choose Leave\n=> The page says bye"'],
    ['rows of steps, and a case with all of them in a cell', 'ID,Name,Steps,Expected\nTC-1,Sign in,Open the page,It opens\n,,Give the password,The door opens\nTC-2,Sign out,"1. Choose Leave",The page says bye'],
    ['numbered lines that go on', 'ID,Name,Steps,Expected\nTC-1,Sign in,"1) Open the\n   page\n2) Give the password","1) It opens\n2) The door\nopens"\nTC-2,Sign out,Choose Leave,The page says bye'],
  ])('%s', async (_, text) => {
    const { entries, problems } = await read(text);
    expect([notedAll(entries), problems.filter((p) => p.severity === 'error')]).toEqual([
      'TC-1: Sign in\n  Open the page => It opens\n  Give the password => The door opens\nTC-2: Sign out\n  Choose Leave => The page says bye', [],
    ]);
  });

  test('a row among rows of steps may hold several steps in its cell, with what they come to', async () => {
    expect(notedAll((await read('ID,Name,Steps,Expected\nTC-1,Sign in,"1. Open the page\n2. Give the password",The door opens\n,,3. Look around,\n,,"4. Knock\n5. Leave","4. Somebody answers\n5. It closes"\nTC-2,Sign out,Choose Leave,The page says bye')).entries)).toBe(
      'TC-1: Sign in\n  Open the page\n  Give the password => The door opens\n  Look around\n  Knock => Somebody answers\n  Leave => It closes\nTC-2: Sign out\n  Choose Leave => The page says bye',
    );
    // Times and amounts at the beginnings of lines are no numbers of steps.
    expect(notedAll((await read('ID,Name,Steps,Expected\nTC-1,Pump,"1.5 litres in\n2.5 litres out",\n,,"10:30 Start\n11:00 Stop",')).entries)).toBe('TC-1: Pump\n  1.5 litres in\n2.5 litres out\n  10:30 Start\n11:00 Stop');
    // Beside data it stays as it is.
    expect(notedAll((await read('ID,Name,Steps,Data\nTC-1,Pay,"1. Give it\n2. Wait",20\n,,Leave,')).entries)).toBe('TC-1: Pay\n  Give it\n2. Wait: 20\n  Leave');
  });

  test('rows with one text are the modules of what follows; without ids titles stand in, and twins are told apart', async () => {
    const { entries, mapping } = await read('Title,Action,Expected,Priority\nAt the counter,,,\nSign in,Open the page,It opens,High\n,Give the password,,\nBy telephone,,,\nSign in,Call,Somebody answers,P2\nSign out,,,urgent');
    expect([mapping.layout, notedAll(entries)]).toEqual(['stepRows', 'title: Sign in: Sign in [At the counter]\n  Open the page => It opens\n  Give the password\ntitle: Sign in (2): Sign in [By telephone]\n  Call => Somebody answers\ntitle: Sign out: Sign out [By telephone]']);
    expect(entries.map((e) => e.fields.priority)).toEqual(['high', 'medium', undefined]);
  });

  test('columns are known by their names in the languages that dates are written in; so are levels, and what is run by hand', async () => {
    const all = ['id', 'module', 'title', 'preconditions', 'number', 'action', 'data', 'expected', 'priority', 'owner', 'tags', 'minutes', 'execution', 'requirements'];
    for (const names of [
      'Testfall-Nr;Modul;Prüffall;Vorbedingung;Schritt-Nr.;Schritt;Testdaten;Erwartetes Ergebnis;Prio;Verantwortlich;Schlagworte;Dauer (min);Ausführung;Anforderung',
      'N° cas de test;Composant;Intitulé;Prérequis;N° étape;Étape;Données;Résultat attendu;Priorité;Testeur;Mots-clés;Durée;Exécution;Exigences',
      'Identificador;Módulo;Caso de prueba;Precondiciones;Nº de paso;Acción;Datos;Resultado esperado;Prioridad;Responsable;Etiquetas;Duración;Ejecución;Requisitos',
      'Id do caso;Módulo;Caso de teste;Pré-condições;Número do passo;Passo;Dados;Resultado esperado;Prioridade;Responsável;Palavras-chave;Duração;Execução;Requisito',
      'TESTFALLSNUMMER;Komponent;Rubrik;Förutsättningar;Steg nr;Åtgärd;Testdata;Förväntat resultat;Prioritet;Ansvarig;Taggar;Tid (min);Exekvering;Krav',
    ]) {
      const { mapping, entries } = await read(`Stand vom 3. Mai\n\n${names}\nTF 1;A;Eins;;1;Tun;x;Gut;hoch;Ada;a, b;2,5;manuell;REQ-7`);
      expect(Object.values(mapping.columns)).toEqual(all);
      expect(entries.map((e) => [e.key, e.requirements, addedCase(e, project())])).toEqual([['TF 1', ['R-2'], expect.objectContaining({ priority: 'high', estimate: 2.5, execution: 'byHand', tags: ['a', 'b'] })]]);
    }
  });

  test('of columns that nobody knows the first is the id when it is numbered, and the title is what differs from case to case', async () => {
    const columns = async (text: string) => Object.values((await read(text)).mapping.columns);
    expect(await columns('Lfd,Wo,Worum,Steps\nTF 1,Hof,Zähler ablesen,Look\n,,,Write it down\nTF 2,Hof,Brief senden,Send it')).toEqual(['id', 'leave', 'title', 'action']);
    expect(await columns('Wo,Lfd,Steps\nHof,TF 1,Look\nHof,TF 1,Look')).toEqual(['title', 'leave', 'action']);
    // What calls itself a title is one, however it looks; so is what nothing else can be the title beside.
    expect(await columns('Title,Module,Action\nCase 1,A,Look\nCase 2,B,Look')).toEqual(['title', 'module', 'action']);
    expect(await columns('Test case,Said,Steps\nTF 1,,Look\nTF 2,,Send it')).toEqual(['title', 'leave', 'action']);
    expect(await columns('Lfd,Steps\nTF 1,Look\nTF 2,Send it')).toEqual(['title', 'action']);
    expect(await columns('Case,Name,Steps\nTF 1,Zähler ablesen,Look\nTF 2,Brief senden,Send it')).toEqual(['id', 'title', 'action']);
  });

  test('a column of data stands behind what is done; a column called Step that holds texts is what is done', async () => {
    expect(notedAll((await read('Case,Step,Test data,Result\nTransfer,Enter the amount:,"20,50",\n,Confirm,,Done')).entries)).toBe('title: Transfer: Transfer\n  Enter the amount: 20,50\n  Confirm => Done');
  });

  test('values are understood in the ways they are written; what is not is named by its cell, and the case comes in', async () => {
    const { entries, problems } = await read('ID,Title,Minutes,Automated,Tags,Channel,Due,Requirements,Conditions\nA,One,"1,5",yes,"smoke; night","Web, new",2026-02-28,"R-1, REQ-7","K-1 Valid, k-2"\nB,Two,1:30,perhaps,,Moon,soon,"Valid reading, once",K-99\nC,Three,2 h,manual,,,,R-9,');
    expect(entries.map((e) => [e.fields.minutes, e.fields.execution, e.fields.tags, e.fields['own:channel'], e.fields['own:due'], e.requirements, e.conditions])).toEqual([
      ['1,5', 'yes', 'smoke; night', 'Web, new', '2026-02-28', ['R-1', 'R-2'], ['K-1', 'K-2']], ['1:30', undefined, '', undefined, undefined, ['R-3'], []], ['2 h', 'manual', '', '', '', [], []],
    ]);
    expect(problems.map((p) => `${p.line}, ${p.column}: ${p.code} ${'value' in p ? p.value : ''}`)).toEqual(['3, Automated: value_unknown perhaps', '3, Channel: value_unknown Moon', '3, Due: value_unknown soon', '3, Conditions: value_unknown K-99', '4, Requirements: value_unknown R-9']);
    const made = entries.map((e) => addedCase(e, project()));
    expect(made.map((c) => [c.estimate, c.execution, c.tags, c.own, c.covers.map((k) => `${k.id} v${k.seenVersion}`)])).toEqual([[1.5, 'automated', ['smoke', 'night'], { channel: ['web-new'], due: '2026-02-28' }, ['K-1 v11', 'K-2 v12', 'K-3 v13']], [90, 'byHand', [], {}, []], [120, 'byHand', [], {}, []]]);
  });

  test('what cannot come in is named: no title, an id twice, texts that are too long, rows of a case that disagree', async () => {
    const { entries, problems } = await read(`ID,Title,Module,Action\nA,One,m,x\n,,other,y\nB,,m,x\nA,Again,m,x\nC,${'t'.repeat(301)},m,x`);
    expect([entries.map((e) => e.key), problems.map((p) => `${p.line}: ${p.code}${'first' in p ? ` ${p.first}` : ''}`).sort()]).toEqual([['A'], ['3: case_cell_differs', '4: title_missing', '5: id_doubled 2', '6: field_too_long']]);
  });
});

describe('Markdown', () => {
  test('headings are cases, those above them modules, and parts are told by their names', async () => {
    const { entries } = await read(
      ['# Readings', '', '## TC-1 Sign in', 'Priority: high', '', 'A clerk comes in the morning.', '', '**Preconditions**', '', 'The office is open', '', '1. Open the page', '   => It opens', '2. Give the password => The door opens', '', '## Sign out', '', '### Steps', '- Choose Leave', '- Wait', '', '### Expected', '- It closes', '- Bye', '', '# Alone', '- Do it'].join('\n'),
      'cases.md',
    );
    expect(notedAll(entries)).toBe('TC-1: Sign in [Readings]\n  Open the page => It opens\n  Give the password => The door opens\ntitle: Sign out: Sign out [Readings]\n  Choose Leave => It closes\n  Wait => Bye\ntitle: Alone: Alone\n  Do it');
    expect(entries[0]?.fields).toMatchObject({ priority: 'high', objective: 'A clerk comes in the morning.', preconditions: 'The office is open' });
  });
});

const text = fc.oneof({ weight: 4, arbitrary: fc.string({ unit: fc.constantFrom('a', 'B', ' ', ',', ';', '"', '1', '.', '<', '>', 'é', '=', '-', '#', '*', '→', '|'), maxLength: 12 }) }, { weight: 1, arbitrary: fc.constantFrom('one\ntwo', '1. x\n2. y', '=> so', '\\=> so', '# no heading', '**Steps**', '- a\n\n- b', '> q', '`', 'S-1', '→ S-1 x', '<!-- caderno: p C-9 v1 -->', 'K-1: x') }).map((s) => s.trim());
const line = text.map((s) => s.replaceAll(/\s+/g, ' '));
const step = fc.oneof(
  fc.tuple(text, text).map(([action, expected]): Omit<Step, 'id'> => ({ kind: 'step', action: /^→/.test(action) ? `x${action}` : action, expected, attachments: [] }) as never),
  fc.tuple(fc.constantFrom('S-1', 'S-2'), fc.uniqueArray(fc.tuple(fc.constantFrom('user', 'a b', 'x=y'), line), { selector: ([id]) => id, maxLength: 2 })).map(([shared, given]) => ({ kind: 'shared', shared, pinned: 3, arguments: given.map(([id, value]) => ({ id, value })) }) as never),
);
const content = fc.record({
  title: line.map((s) => s || 'T'), module: line, objective: text, preconditions: text, owner: line, priority: fc.constantFrom('high' as const, 'low' as const), kind: fc.constantFrom('procedure' as const, 'charter' as const), execution: fc.constantFrom('byHand' as const, 'automated' as const),
  estimate: fc.constantFrom(null, 0, 2.5, 90), tags: fc.uniqueArray(line.filter((s) => s !== ''), { maxLength: 3 }), steps: fc.array(step, { maxLength: 5 }), covers: fc.subarray(['K-1', 'K-2', 'K-10'] as const),
  attachments: fc.subarray([{ id: attachmentId('a'), name: 'dial [1].png', type: 'image/png', size: 9 }, { id: attachmentId('b'), name: 'Bill.pdf', type: 'application/pdf', size: 9 }] as const),
  own: fc.record({ channel: fc.subarray(['kiosk', 'web-new'], { minLength: 1 }), due: fc.constant('2026-02-28'), notes: text.filter((s) => s !== ''), priority: fc.constantFrom('a', 'b') }, { requiredKeys: [] }),
}).map(({ steps, covers, ...more }): CaseContent => ({ ...EMPTY_CASE, ...more, steps: steps.map((s, i) => ({ ...s, id: stepId(`s${i}`) }) as Step), covers: covers.map((id) => newCover(id, 1)) }));

test('written out in any way and read in again, nothing changes', async () => {
  const titleOf = (id: ArtefactId): string => `Title (of) ${id}`;
  const ways: readonly [string, (cases: readonly CaseContent[], layout: CaseLayout) => Promise<Uint8Array>][] = [
    ['cases.csv', (cases, layout) => Promise.resolve(new TextEncoder().encode(writeCsv([...caseTable(exported(cases), { ...options, beside: null, layout })])))],
    ['cases.xlsx', (cases, layout) => writeXlsx('Cases', [...caseTable(exported(cases), { ...options, beside: new FilesBeside(), layout })])],
    ['cases.md', (cases) => Promise.resolve(new TextEncoder().encode([...caseMarkdown(exported(cases), { ...options, beside: new FilesBeside() })].join('')))],
  ];
  const options = { project: 'p', fields: FIELDS, titleOf, figures: false };
  const exported = (cases: readonly CaseContent[]) => cases.map((c, i) => ({ id: `C-${i + 1}` as const, version: 4, state: 'draft' as const, content: c, design: null }));
  await fc.assert(
    fc.asyncProperty(fc.array(content, { minLength: 1, maxLength: 4 }), fc.constantFrom('stepRows' as const, 'caseRows' as const), fc.constantFrom(...ways), async (cases, layout, [name, write]) => {
      const raw = await readFile(name, await write(cases, layout), GUESS_ALL, { table: CASE_TABLE });
      const document: SourceDocument = raw.format === 'markdown' ? casesInMarkdown(raw) : raw;
      const mapping = { ...guessCaseMapping(document, 'p', 'cases', FIELDS, null), ...(raw.format === 'markdown' ? {} : { layout }) };
      const { entries, problems } = caseEntriesOf(document, mapping, names, LIMITS);
      expect(problems.filter((p) => p.severity === 'error')).toEqual([]);
      const plan = planCases(entries, cases.map((c, i): ExistingCase => ({ id: `C-${i + 1}`, content: c, key: null, base: null, withdrawn: false })), project());
      expect([name, layout, plan.added, plan.changed.flatMap((c) => c.fields), plan.same.length]).toEqual([name, layout, [], [], cases.length]);
    }),
    { seed: 21, numRuns: 400 },
  );
});

test('files lie beside the cases, each once and under a name of its own whatever letters a file system tells apart', () => {
  const file = (id: string, name: string, type: Attachment['type'] = 'image/png'): Attachment => ({ id: attachmentId(id), name, type, size: 1 });
  const having = (own: readonly Attachment[], ...steps: readonly (readonly Attachment[])[]): CaseContent => ({ ...EMPTY_CASE, title: 'T', attachments: own, steps: steps.map((attachments, i): Step => ({ kind: 'step', id: stepId(`s${i}`), action: 'Look', expected: '', attachments })) });
  const beside = new FilesBeside();
  const first = having([file('a', 'dial.png')], [], [file('b', 'DIAL.png'), file('a', 'same bytes.png')]);
  const second = having([file('a', 'dial.png'), file('c', '../../bill.pdf', 'application/pdf')]);
  const cases = [first, second, having([])].map((content, i) => ({ id: `C-${i + 1}` as const, version: 1, state: 'draft' as const, content, design: null }));
  const options = { project: 'p', fields: [], titleOf: () => '', figures: false, beside };
  const [head = [], ...rows] = caseTable(cases, { ...options, layout: 'caseRows' });
  expect(rows.map((row) => row[head.indexOf('attached files')])).toEqual(['files/C-1/dial.png\nstep 2: files/C-1/DIAL (2).png\nstep 2: files/C-1/dial.png', 'files/C-1/dial.png\nfiles/C-2/bill.pdf', '']);
  expect(beside.all.map((f) => `${f.path} ${f.attachment.id}`)).toEqual(['files/C-1/dial.png a', 'files/C-1/DIAL (2).png b', 'files/C-2/bill.pdf c']);
  expect([...caseMarkdown(cases, options)].join('')).toContain('- Attached files: ![dial.png](<files/C-1/dial.png>)\n  step 2: ![DIAL.png](<files/C-1/DIAL (2).png>)');
  expect([...caseTable(cases, { ...options, beside: null, layout: 'caseRows' })][0]).not.toContain('attached files');
});

describe('the same source again', () => {
  const first = 'ID,Title,Priority,Steps,Expected\nA,One,high,"1. Open\n2. Close","1. It opens"';
  const grown = async (textAgain: string, edit: (content: CaseContent) => CaseContent) => {
    const [entry] = (await read(first)).entries;
    if (entry === undefined) throw new Error('There is one case');
    const before = addedCase(entry, project());
    const existing: ExistingCase = { id: 'C-1', content: edit(before), key: 'A', base: caseBaseOf(entry, before, FIELDS), withdrawn: false };
    const plan = planCases((await read(textAgain)).entries, [existing], project());
    return { before, existing, plan };
  };
  test('takes over what only the file changed, keeps what only the project changed, and keeps steps with their ids', async () => {
    const { plan, existing } = await grown('ID,Title,Priority,Steps,Expected\nA,One more,high,"1. Open\n2. Wait for <address> and <time>\n3. Close","1. It opens"', (c) => ({ ...c, priority: 'low' }));
    const [change] = plan.changed;
    expect([change?.fields.map((f) => f.field), change?.conflicts]).toEqual([['title', 'steps'], []]);
    const made = changedCase(existing.content, change!, new Map(), project());
    expect([made.title, made.priority, made.steps.map((s) => s.id), made.parameters.map((p) => p.name)]).toEqual(['One more', 'low', ['n1', 'n1', 'n2'].map((_, i) => [existing.content.steps[0]?.id, expect.any(String), existing.content.steps[1]?.id][i]), ['time']]);
  });
  test('asks where both changed the same, and takes what is chosen', async () => {
    const { plan, existing } = await grown('ID,Title,Priority,Steps,Expected\nA,Theirs,high,"1. Open\n2. Close","1. It opens"', (c) => ({ ...c, title: 'Mine' }));
    expect(openCaseConflicts(plan, new Map())).toEqual([caseConflictKey('C-1', 'title')]);
    const after = (choice: 'mine' | 'theirs' | { own: string }) => changedCase(existing.content, plan.changed[0]!, new Map([[caseConflictKey('C-1', 'title'), choice]]), project()).title;
    expect([after('mine'), after('theirs'), after({ own: 'Third' })]).toEqual(['Mine', 'Theirs', 'Third']);
  });
  test('the very same file changes nothing; a case that is not in it any more is told and left', async () => {
    expect((await grown(first, (c) => ({ ...c, objective: 'Ours' }))).plan).toMatchObject({ changed: [], added: [], same: [{ id: 'C-1' }], gone: [] });
    expect((await grown('ID,Title\nB,New', (c) => c)).plan).toMatchObject({ added: [{ key: 'B' }], gone: ['C-1'] });
  });
  test('pictures and links to steps stay with steps that say the same, wherever they stand; a changed one keeps them too', () => {
    const picture = { id: 'f'.repeat(64) as never, name: 'dial.png', type: 'image/png', size: 7 } as const;
    const before: CaseContent = { ...EMPTY_CASE, title: 'One', steps: [{ ...plainStep(stepId('a'), 'Open', 'It opens'), attachments: [picture] }, plainStep(stepId('b'), 'Close'), { kind: 'shared', id: stepId('u'), shared: 'S-1', pinned: 2, arguments: [] }], covers: [{ ...newCover('K-1', 1), expects: [stepId('a'), stepId('b')] }] };
    const entry = (steps: CaseEntry['steps']): CaseEntry => ({ line: 2, key: 'A', ownId: 'C-1', version: null, fields: {}, steps, conditions: null, requirements: [] });
    const after = (steps: CaseEntry['steps']) => changedCase(before, { entry: entry(steps), id: 'C-1', fields: [{ field: 'steps', from: '', to: '' }], conflicts: [] }, new Map(), project());
    const moved = after([{ kind: 'use', of: 'S-1', given: [] }, { kind: 'plain', action: 'Close', expected: '' }, { kind: 'plain', action: 'Open', expected: 'It opens wide' }]);
    expect([moved.steps.map((s) => s.id), moved.steps[0], moved.steps[2], moved.covers[0]?.expects]).toMatchObject([['u', 'b', 'a'], { pinned: 2 }, { expected: 'It opens wide', attachments: [picture] }, ['a', 'b']]);
    expect(after([{ kind: 'plain', action: 'Open', expected: 'It opens' }]).covers[0]?.expects).toEqual(['a']);
  });
});

describe('columns', () => {
  test('what was chosen for a source comes first, and what one chose to leave stays left', async () => {
    const raw = await readFile('cases.csv', new TextEncoder().encode('Case,What is done,Result,Notes,Title\nA,x,y,z,t'), GUESS_ALL, { table: CASE_TABLE });
    const remembered: CaseMapping = { source: 'office', columns: { Case: 'id', 'What is done': 'action', Result: 'leave' }, layout: 'stepRows', headings: false, module: 'Night' };
    expect(guessCaseMapping(raw as SourceDocument, 'p', 'cases', FIELDS, remembered)).toEqual({ ...remembered, columns: { ...remembered.columns, Notes: 'own:notes', Title: 'title' } });
  });

  test('a field is taken once, what exports add is left, and a table without titles gives its best column for them', async () => {
    const columnsOf = async (header: string) => (await read(`${header}\n${header.replaceAll(/[^,]+/g, 'x')}`)).mapping.columns;
    expect(await columnsOf('ID,Title,Name,Labels,Keywords')).toEqual({ ID: 'id', Title: 'title', Name: 'leave', Labels: 'tags', Keywords: 'tags' });
    expect(await columnsOf('p id,p version,title,requirements of the conditions,instances')).toEqual({ 'p id': 'ownId', 'p version': 'version', title: 'title', 'requirements of the conditions': 'leave', instances: 'leave' });
    expect(await columnsOf('No.,Thing,Action')).toEqual({ 'No.': 'id', Thing: 'title', Action: 'action' });
    expect(await columnsOf('Title,Description,Expected')).toEqual({ Title: 'title', Description: 'action', Expected: 'expected' });
  });
});

describe('steps that cannot be as they are written', () => {
  test('a use of what is not there stays as words, one of what is there is a use with what it is given', async () => {
    const { entries, problems } = await read('ID,Title,Action,Expected\nA,One,→ S-99 Gone,\n,,"→ S-1 Sign in (user = a clerk; ""a=b"" = ""x; y"")",\n,,Then leave,Bye');
    expect([notedAll(entries), problems.filter((p) => p.code === 'use_unknown').map((p) => [p.line, p.column, p.severity])]).toEqual(['A: One\n  S-99\n  → S-1 user=a clerk,a=b=x; y\n  Then leave => Bye', [[2, 'Action', 'warning']]]);
  });

  test('more steps than a case may have, or one that is too long, keep that case out and no other', async () => {
    const many = Array.from({ length: LIMITS.steps + 1 }, (_, i) => `${i + 1}. step`).join('\n');
    const { entries, problems } = await read(`ID,Title,Steps\nA,Many,"${many}"\nB,Long,${'s'.repeat(LIMITS.line + 1)}\nC,Good,"1. a\n2. b"`);
    expect([entries.map((e) => e.key), problems.map((p) => [p.line, p.code, 'limit' in p ? p.limit : null])]).toEqual([['C'], [[2, 'too_many_steps', LIMITS.steps], [2003, 'field_too_long', LIMITS.line]]]);
  });
});

describe('which case an entry is', () => {
  const existing = (id: ExistingCase['id'], key: string | null, withdrawn = false): ExistingCase => ({ id, content: { ...EMPTY_CASE, title: 'Same' }, key, base: null, withdrawn });
  const entry = (key: string, ownId: CaseEntry['ownId'], title = 'Same'): CaseEntry => ({ line: 2, key, ownId, version: null, fields: { title }, steps: null, conditions: null, requirements: [] });

  test('its own id counts before the id of the source; no case is met twice; withdrawn ones are not missed', () => {
    const plan = planCases([entry('B', 'C-1'), entry('B', null), entry('A', null), entry('X', 'C-77')], [existing('C-1', 'A'), existing('C-2', 'B'), existing('C-3', 'old'), existing('C-4', 'older', true), existing('C-5', null)], project());
    expect([plan.same.map((s) => s.id), plan.added.map((e) => e.key), plan.gone]).toEqual([['C-1', 'C-2'], ['A', 'X'], ['C-3']]);
  });

  test('without a base what the file says is taken, never asked; another spelling of the same value is no change', () => {
    const held: ExistingCase = { ...existing('C-1', 'A'), content: { ...EMPTY_CASE, title: 'Same', priority: 'high', estimate: 90, tags: ['a', 'b'], objective: 'x\ny' } };
    const same = { ...entry('A', null), fields: { title: 'Same ', priority: 'high', minutes: '1:30', tags: 'a;b', objective: 'x  \r\ny\n' } };
    expect(planCases([same], [held], project())).toMatchObject({ changed: [], same: [{ id: 'C-1' }] });
    expect(planCases([entry('A', null, 'Other')], [held], project()).changed).toMatchObject([{ fields: [{ field: 'title', from: 'Same', to: 'Other' }], conflicts: [] }]);
  });

  test('a link that was taken away since it was brought stays away; one the file adds comes', async () => {
    const [brought] = (await read('ID,Title,Requirements\nA,One,R-1')).entries;
    const content = addedCase(brought!, project());
    const held: ExistingCase = { id: 'C-1', content: { ...content, covers: [] }, key: 'A', base: caseBaseOf(brought!, content, FIELDS), withdrawn: false };
    expect(planCases([brought!], [held], project())).toMatchObject({ changed: [], same: [{ id: 'C-1' }] });
    const more = planCases((await read('ID,Title,Requirements\nA,One,"R-1, REQ-7"')).entries, [{ ...held, content }], project()).changed[0]!;
    expect([more.fields, changedCase(content, more, new Map(), project()).covers.map((c) => c.id)]).toEqual([[{ field: 'requirements', from: '', to: 'R-2' }], ['K-1', 'K-2', 'K-3']]);
  });
});
