import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useMemo, useRef, useState, type ReactNode, type RefObject } from 'react';
import { Panel, PanelGroup, PanelResizeHandle, type ImperativePanelHandle } from 'react-resizable-panels';
import { useLocation } from 'react-router';
import { useMedia } from '../look/index.ts';
import { useCommands, type Command } from './commands.ts';
import { WholeWidthContext } from './WholeWidth.tsx';

interface Props {
  /** Remembers where the gutter was dragged to. */
  readonly chapter: string;
  readonly left: ReactNode;
  readonly leftLabel: string;
  readonly right: ReactNode;
  readonly rightLabel: string;
  /** Share of the left page at first, in percent. */
  readonly leftShare: number;
  /** What was opened at the right, null for nothing yet. Not given, it is what the path names: `/project/chapter` alone opens nothing, for the list is what one came for. */
  readonly opened?: string | null;
}

/** As theme.css has it. */
const NARROW = 'screen and (max-width: 820px)';
const NO_COMMANDS: readonly Command[] = [];

/**
 * Two facing pages with a gutter to drag; either can be folded away. On a narrow window, or enlarged, the right page stands
 * below the left, in one scroll (theme.css): the pages are the same, so that enlarging one loses no dialog and nothing typed.
 */
export function Spread({ chapter, left, leftLabel, right, rightLabel, leftShare, opened }: Props) {
  const leftPanel = useRef<ImperativePanelHandle>(null);
  const rightPanel = useRef<ImperativePanelHandle>(null);
  const below = useRef<HTMLElement>(null);
  const isNarrow = useMedia(NARROW);
  const [whole, setWhole] = useState(false);
  const commands = useMemo<Command[]>(
    () => [
      { id: 'fold-left', title: `Fold ${leftLabel} away, or back`, keys: '[', keyLabel: '[', run: () => toggle(leftPanel.current) },
      { id: 'fold-right', title: `Fold ${rightLabel} away, or back`, keys: ']', keyLabel: ']', run: () => toggle(rightPanel.current) },
    ],
    [leftLabel, rightLabel],
  );
  useCommands(isNarrow ? NO_COMMANDS : commands);
  useBroughtIntoView(below, isNarrow, opened);
  const width = useMemo(() => (isNarrow ? null : { whole, toggle: () => toggle(leftPanel.current) }), [isNarrow, whole]);
  return (
    <PanelGroup direction="horizontal" autoSaveId={`caderno-${chapter}`} className="book">
      <Panel id="left" order={1} ref={leftPanel} defaultSize={leftShare} minSize={20} collapsible collapsedSize={0} onCollapse={() => setWhole(true)} onExpand={() => setWhole(false)} className="page-left rounded-l-[10px]">
        <section aria-label={leftLabel} className="h-full overflow-y-auto overflow-x-hidden" tabIndex={-1}>
          {left}
        </section>
      </Panel>
      <PanelResizeHandle className="group relative w-px bg-rule2 outline-none focus-visible:bg-blue" aria-label="Gutter between the pages; arrow keys move it">
        <div className="absolute -left-2.5 bottom-3 z-10 hidden gap-px group-hover:flex group-focus-visible:flex">
          <Fold label={`Fold ${leftLabel} away or back`} onClick={() => toggle(leftPanel.current)}>
            <ChevronLeft size={13} aria-hidden="true" />
          </Fold>
          <Fold label={`Fold ${rightLabel} away or back`} onClick={() => toggle(rightPanel.current)}>
            <ChevronRight size={13} aria-hidden="true" />
          </Fold>
        </div>
      </PanelResizeHandle>
      <Panel id="right" order={2} ref={rightPanel} minSize={25} collapsible collapsedSize={0} className="page-right">
        <section ref={below} aria-label={rightLabel} className="h-full overflow-y-auto overflow-x-hidden" tabIndex={-1}>
          <WholeWidthContext value={width}>{right}</WholeWidthContext>
        </section>
      </Panel>
    </PanelGroup>
  );
}

/** Where the pages stand below each other, what is opened at the left is brought into view. */
function useBroughtIntoView(below: RefObject<HTMLElement | null>, isNarrow: boolean, opened: Props['opened']): void {
  const { pathname } = useLocation();
  const shown = opened === undefined ? (pathname.split('/').slice(3).join('/') || null) : opened;
  useEffect(() => {
    if (isNarrow && shown !== null) below.current?.scrollIntoView({ block: 'start' });
  }, [below, isNarrow, shown]);
}

function toggle(panel: ImperativePanelHandle | null): void {
  if (panel?.isCollapsed() === true) panel.expand();
  else panel?.collapse();
}

function Fold({ label, onClick, children }: { readonly label: string; readonly onClick: () => void; readonly children: ReactNode }) {
  return (
    <button type="button" title={label} aria-label={label} onClick={onClick} className="grid size-6 place-items-center rounded-[4px] border border-rule2 bg-page text-ink2">
      {children}
    </button>
  );
}
