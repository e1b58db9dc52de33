import { EMPTY_CASE, type Use, type Written } from '@caderno/core/cases';
import { keysUsed, openCase, stepsUsed, surfacedParameters, visibleConstants, type Constant, type Constants, type NotOpened, type OpenedCase, type RowSource, type Surfaced, type Used, type UsedSteps } from '@caderno/core/shared';
import { useMemo } from 'react';
import { useLibrary, useSettings, useSummaries } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

/** What a use is known by in lists: its latest version. */
interface LatestHead {
  readonly title: string;
  readonly version: number;
  readonly withdrawn: boolean;
}

/** The steps of a case or of shared steps with all they use. */
export interface StepsOpened {
  readonly library: ReadonlyMap<string, Used>;
  readonly opened: ({ readonly kind: 'opened' } & OpenedCase) | NotOpened;
  readonly surfaced: readonly Surfaced[];
  readonly usedOf: (use: Use) => UsedSteps | undefined;
  readonly latestOf: (use: Use) => LatestHead | undefined;
}

const EMPTY: ReadonlyMap<string, Used> = new Map();

const NO_CONSTANTS: readonly Constant[] = [];

/** The project's constants as they may be seen, in a configuration or in none. */
export function useConstants(configuration: string | null = null): Constants {
  const { project } = useFrame();
  const stored = useSettings(project).data?.settings.constants ?? NO_CONSTANTS;
  return useMemo(() => visibleConstants(stored, configuration), [configuration, stored]);
}

/** Opens what is being written; what it uses is read once and again whenever it changes. */
export function useOpened(content: Written & Partial<RowSource>, configuration: string | null = null): StepsOpened {
  const { project } = useFrame();
  const { steps, parameters, rows = EMPTY_CASE.rows, data = EMPTY_CASE.data, runs = EMPTY_CASE.runs } = content;
  const library = useLibrary(project, keysUsed({ steps, data }).sort()).data ?? EMPTY;
  const shared = useSummaries(project, 'shared').data;
  const cases = useSummaries(project, 'case').data;
  const constants = useConstants(configuration);
  const opened = useMemo(() => openCase({ ...EMPTY_CASE, steps, parameters, rows, data, runs }, library, constants), [constants, data, library, parameters, rows, runs, steps]);
  const surfaced = useMemo(() => surfacedParameters({ steps, parameters }, library), [library, parameters, steps]);
  return useMemo(
    () => ({
      library,
      opened,
      surfaced,
      usedOf: (use) => stepsUsed(library, use),
      latestOf: (use) => {
        const head = use.kind === 'shared' ? shared?.find((s) => s.id === use.shared) : cases?.find((c) => c.id === use.case);
        return head && { title: head.title, version: head.version, withdrawn: head.state === 'withdrawn' };
      },
    }),
    [cases, library, opened, shared, surfaced],
  );
}
