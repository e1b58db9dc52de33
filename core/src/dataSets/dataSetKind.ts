import { ledTo, traceLink, type Kind } from '../artefacts/index.ts';
import { EMPTY_DATA_SET, dataSetMeaning, type DataSetContent } from './dataSet.ts';

export const dataSetKind: Kind<DataSetContent> = {
  empty: EMPTY_DATA_SET,
  meaning: dataSetMeaning,
  links: ({ serves }) => serves.map((served) => traceLink('serves', served)),
  versionsNamed: () => [],
  words: ({ purpose, parameters, rows }) => [purpose, ...parameters.map((p) => p.name), ...rows.flatMap((r) => [r.name, r.description])],
  withTraceLinks: (content, replace) => ({ ...content, serves: content.serves.map(replace) }),
  withTargets: (content, targets) => ({ ...content, serves: content.serves.flatMap((served) => ledTo(served, targets)) }),
  settled: null,
  withPins: null,
};
