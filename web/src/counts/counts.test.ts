/** @jest-environment ./web/test/browserEnvironment.mjs */
import { expect, test } from '@jest/globals';
import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { countsOf, groupsOf, measuresOf, type Figure, type Listed } from '@caderno/core/listing';
import type { CountsView } from '@caderno/contract';
import fc from 'fast-check';
import { withParameters } from '../frame/index.ts';
import { countsSheet } from './countsSheet.ts';
import { canBeCounted, countsChange, countsSearch, firstCounts, readCounts } from './countsView.ts';
import { countsTitle, figureWords } from './countsWords.ts';

const amount = (units: bigint, scale: number): Figure => ({ kind: 'amount', amount: { units, scale } });

test('whatever is counted, and wherever one looks, stands in the address and is read from it again', () => {
  const values = fc.option(fc.oneof(fc.string(), fc.constantFrom('-', '=', '', 'a&b=c', '💧')), { nil: null });
  const view = fc.constantFrom(...ARTEFACT_KINDS).chain((kind) => {
    const groups = groupsOf(kind, []);
    return fc.record({ kind: fc.constant(kind), query: fc.string(), counts: fc.record({ down: fc.constantFrom(...groups), across: fc.option(fc.constantFrom(...groups), { nil: null }), measure: fc.constantFrom(...measuresOf(kind, [])), as: fc.constantFrom('table' as const, 'bars' as const) }), line: fc.option(values, { nil: undefined }), column: fc.option(values, { nil: undefined }) });
  });
  fc.assert(
    fc.property(view, ({ kind, query, counts, line, column }) => {
      const search = withParameters(new URLSearchParams(countsSearch(kind, query, counts)), countsChange({ line, column }));
      expect(readCounts(new URLSearchParams(search.toString()), [])).toEqual({ kind, query, counts, line, column });
    }),
    { seed: 7 },
  );
});

test('each kind begins with something that can be counted; what an address says wrongly is as at first', () => {
  for (const kind of ARTEFACT_KINDS) expect([kind, canBeCounted(kind, firstCounts(kind), [])]).toEqual([kind, true]);
  expect(readCounts(new URLSearchParams('kind=question&down=module&across=nothing&of=minutes&as=cake&line=x'), [])).toEqual({ kind: 'question', query: '', counts: firstCounts('question'), line: undefined, column: undefined });
  const gone: CountsView = { ...firstCounts('case'), measure: 'own:cost' as never };
  expect([canBeCounted('case', gone, []), canBeCounted('question', { ...firstCounts('question'), across: 'tags' }, [])]).toEqual([false, false]);
});

test('figures are told with the decimals they have, and a share never as more than it is', () => {
  expect([amount(1_234_500n, 2), amount(-5n, 1), amount(10n ** 20n, 0), { kind: 'share', share: { part: 999, of: 1_000 } } as const, null].map(figureWords)).toEqual(['12,345.00', '-0.5', '100,000,000,000,000,000,000', '99 %', '–']);
  expect([countsTitle('case', { down: 'module', across: 'priority', measure: 'number', as: 'table' }, []), countsTitle('question', { down: 'owner', across: null, measure: 'heldUp', as: 'table' }, [])]).toEqual(['Cases by module and priority', 'Items held up: questions by owner']);
});

test('a sheet holds the lines with their sums, nothing where nobody is, and exact numbers as any spreadsheet reads them', () => {
  const listed = (n: number, part: Partial<Listed>): Listed => ({ kind: 'case', id: `C-${n}`, title: '', state: 'draft', version: 1, author: '', at: '2026-01-01T00:00:00Z', broken: false, own: {}, modules: [''], ...part });
  const view: CountsView = { down: 'owner', across: 'priority', measure: 'minutes', as: 'table' };
  const counts = countsOf([listed(1, { owner: 'Rui', priority: 'high', estimate: 1_200.5 }), listed(2, { priority: 'low' })], view, 0, { fields: [], modules: [], priorities: ['high', 'low'] })!;
  expect(countsSheet(counts, view, [], (_, value) => value ?? 'nobody')).toEqual([['Owner', 'high', 'low', 'All'], ['Rui', '1200.5', '', '1200.5'], ['nobody', '', '', ''], ['All', '1200.5', '', '1200.5']]);
});
