import { EMPTY_CASE, type Use, type Written } from '@caderno/core/cases';
import { keysUsed, openInstance, stepsUsed, surfacedParameters, visibleConstants, type Constant, type Constants, type InstanceChoice, type NotOpened, type OpenedAt, type RowSource, type Surfaced, type Used, type UsedSteps } from '@caderno/core/shared';
import { useMemo } from 'react';
import { useLibrary, useSettings, useSummaries } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

/** What a use is known by in lists: its latest version. */
interface LatestHead {
  readonly title: string;
  readonly version: number;
  /** The version agreed last; null: none was. */
  readonly agreed: number | null;
  readonly withdrawn: boolean;
}

/** The steps of a case or of shared steps with all they use. */
export interface StepsOpened {
  readonly library: ReadonlyMap<string, Used>;
  /** At the instance that was asked for. */
  readonly opened: OpenedAt | NotOpened;
  readonly surfaced: readonly Surfaced[];
  readonly usedOf: (use: Use) => UsedSteps | undefined;
  readonly latestOf: (use: Use) => LatestHead | undefined;
}

const FIRST: InstanceChoice = { kind: 'row', row: null };

const EMPTY: ReadonlyMap<string, Used> = new Map();

const NO_CONSTANTS: readonly Constant[] = [];

/** The project's constants as they may be seen, in a configuration or in none. */
export function useConstants(configuration: string | null = null): Constants {
  const { project } = useFrame();
  const stored = useSettings(project).data?.settings.constants ?? NO_CONSTANTS;
  return useMemo(() => visibleConstants(stored, configuration), [configuration, stored]);
}

/** Opens what is being written; what it uses is read once and again whenever it changes. */
export function useOpened(content: Written & Partial<RowSource>, configuration: string | null = null, instance: InstanceChoice = FIRST): StepsOpened {
  const { project } = useFrame();
  const { steps, parameters, rows = EMPTY_CASE.rows, data = EMPTY_CASE.data, runs = EMPTY_CASE.runs } = content;
  const library = useLibrary(project, keysUsed({ steps, data }).sort()).data ?? EMPTY;
  const shared = useSummaries(project, 'shared').data;
  const cases = useSummaries(project, 'case').data;
  const constants = useConstants(configuration);
  const { kind } = instance;
  const which = kind === 'number' ? instance.number : instance.row;
  const opened = useMemo(
    () => openInstance({ ...EMPTY_CASE, steps, parameters, rows, data, runs }, library, constants, { kind, [kind]: which } as InstanceChoice),
    [constants, data, kind, library, parameters, rows, runs, steps, which],
  );
  const surfaced = useMemo(() => surfacedParameters({ steps, parameters }, library), [library, parameters, steps]);
  return useMemo(
    () => ({
      library,
      opened,
      surfaced,
      usedOf: (use) => stepsUsed(library, use),
      latestOf: (use) => {
        const head = use.kind === 'shared' ? shared?.find((s) => s.id === use.shared) : cases?.find((c) => c.id === use.case);
        return head && { title: head.title, version: head.version, agreed: head.agreed, withdrawn: head.state === 'withdrawn' };
      },
    }),
    [cases, library, opened, shared, surfaced],
  );
}
