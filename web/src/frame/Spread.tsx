import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useRef, type ReactNode } from 'react';
import { Panel, PanelGroup, PanelResizeHandle, type ImperativePanelHandle } from 'react-resizable-panels';

interface Props {
  /** Remembers where the gutter was dragged to. */
  readonly chapter: string;
  readonly left: ReactNode;
  readonly leftLabel: string;
  readonly right: ReactNode;
  readonly rightLabel: string;
  /** Share of the left page at first, in percent. */
  readonly leftShare: number;
}

/** Two facing pages with a gutter to drag; either can be folded away. On a narrow window the pages are stacked. */
export function Spread({ chapter, left, leftLabel, right, rightLabel, leftShare }: Props) {
  const leftPanel = useRef<ImperativePanelHandle>(null);
  const rightPanel = useRef<ImperativePanelHandle>(null);
  return (
    <PanelGroup direction="horizontal" autoSaveId={`caderno-${chapter}`} className="book max-[820px]:!flex-col">
      <Panel id="left" order={1} ref={leftPanel} defaultSize={leftShare} minSize={20} collapsible collapsedSize={0} className="page-left rounded-l-[10px]">
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
        <section aria-label={rightLabel} className="h-full overflow-y-auto overflow-x-hidden" tabIndex={-1}>
          {right}
        </section>
      </Panel>
    </PanelGroup>
  );
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
