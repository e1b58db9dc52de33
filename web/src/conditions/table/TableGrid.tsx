import { LIMITS } from '@caderno/contract';
import { tableAsGrid, tableFromGrid, type DecisionTableModel, type Rule } from '@caderno/core/conditions';
import type { Standing } from '@caderno/core/coverage';
import { parsePastedGrid } from '@caderno/core/data';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { moved } from '../../grid/index.ts';
import { STANDING_WORD, StandingShape, countOf, usePrinting, locale } from '../../look/index.ts';
import { PrintedTable, ruleText } from '../../models/index.ts';
import { newPartId } from '../newPartId.ts';
import { TableLineName } from './TableLineName.tsx';
import { addRule, moveRule, removeRule, setAction, setEntry, toggleImpossible, valueTyped } from './tableEdits.ts';

/** The cell with the focus; the turn changes whenever the focus is to be set anew. */
export interface GridPlace {
  readonly row: number;
  readonly column: number;
  readonly turn: number;
}

interface Props {
  readonly model: DecisionTableModel;
  readonly canEdit: boolean;
  readonly place: GridPlace;
  readonly onPlace: (change: (place: GridPlace) => GridPlace) => void;
  readonly standingOf: (rule: Rule) => Standing | null;
  readonly gravityOf: (rule: string) => 'grave' | 'hint' | null;
  readonly onChange: (change: (model: DecisionTableModel) => DecisionTableModel) => void;
  readonly onMissing: () => void;
}

const NARROWEST_RULE = 66;
const WIDEST_RULE = 130;
const NAME_WIDTH = 176;
/** Up to so many rules all columns are drawn. */
const MOST_DRAWN = 80;
/** A condition has its values below its name; both are targets to click. */
const CONDITION_HEIGHT = 50;
const LINE_HEIGHT = 36;
const HEAD_HEIGHT = 40;

/** Rules as columns. Of many only those in view are drawn, so that a table of thousands of rules still scrolls. */
export function TableGrid({ model, canEdit, place, onPlace, standingOf, gravityOf, onChange, onMissing }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const [edit, setEdit] = useState<string | null>(null);
  const printing = usePrinting();
  const width = useRuleWidth(scroller, model.rules.length);
  const columns = useVirtualizer({ horizontal: true, count: model.rules.length, getScrollElement: () => scroller.current, estimateSize: () => width, overscan: 6, scrollPaddingStart: NAME_WIDTH });
  useEffect(() => columns.measure(), [columns, width]);
  const { conditions, actions, rules } = model;
  const lines = conditions.length + actions.length + 1;
  const go = (row: number, column: number): void => onPlace((p) => ({ row: clamp(row, lines), column: clamp(column, rules.length), turn: p.turn + 1 }));
  useLayoutEffect(() => {
    if (place.turn === 0) return;
    if (model.rules.length > MOST_DRAWN) columns.scrollToIndex(place.column);
    const focus = (): boolean => {
      const cell = scroller.current?.querySelector<HTMLElement>(`[data-cell="${place.row} ${place.column}"]`);
      cell?.focus();
      return cell != null;
    };
    // At once where it is drawn: the next key may come before the next frame, and with a removed rule the focus is gone.
    if (focus()) return;
    const frame = requestAnimationFrame(focus);
    return () => cancelAnimationFrame(frame);
  }, [columns, model.rules.length, place]);

  const rule = rules[place.column];
  const condition = conditions[place.row];
  const action = actions[place.row - conditions.length];
  const commit = (text: string | null): void => {
    if (text !== null && rule !== undefined && action !== undefined) onChange(setAction(rule.id, action.id, text.trim()));
    setEdit(null);
  };

  const commandKey = (event: React.KeyboardEvent): boolean => {
    const ctrl = event.ctrlKey || event.metaKey;
    const changeAndGo = (change: (m: DecisionTableModel) => DecisionTableModel, column: number): void => {
      onChange(change);
      // Not held to the rules there are: one may just have been made.
      onPlace((p) => ({ row: place.row, column: Math.max(0, column), turn: p.turn + 1 }));
    };
    if (event.altKey && event.key.toLowerCase() === 'm') onMissing();
    else if (event.altKey && event.key === 'ArrowLeft') changeAndGo(moveRule(place.column, place.column - 1), place.column - 1);
    else if (event.altKey && event.key === 'ArrowRight') changeAndGo(moveRule(place.column, place.column + 1), Math.min(place.column + 1, rules.length - 1));
    else if (ctrl && event.key.toLowerCase() === 'd') changeAndGo(addRule(place.column, rule), place.column + 1);
    else if (ctrl && (event.key === 'Backspace' || event.key === 'Delete') && rule !== undefined) changeAndGo(removeRule(rule.id), Math.min(place.column, rules.length - 2));
    else return false;
    return true;
  };
  const typeKey = (event: React.KeyboardEvent): boolean => {
    if (rule === undefined || event.ctrlKey || event.metaKey || event.altKey) return false;
    const empties = event.key === 'Delete' || event.key === 'Backspace' || event.key === '-' || event.key === ' ';
    if (condition !== undefined) {
      const entry = rule.entries[condition.id] ?? [];
      if (empties) return (onChange(setEntry(rule.id, condition.id, [])), true);
      if (event.key === '+') {
        const next = condition.values.find((v) => !entry.includes(v.id));
        if (next !== undefined) onChange(setEntry(rule.id, condition.id, [...entry, next.id]));
        return true;
      }
      const value = event.key === 'Enter' ? valueTyped(condition, entry, '') : event.key.length === 1 ? valueTyped(condition, entry, event.key) : null;
      if (value !== null) onChange(setEntry(rule.id, condition.id, [value]));
      return value !== null;
    }
    if (action === undefined) {
      if (event.key !== 'x' && event.key !== 'Enter' && !empties) return false;
      if (event.key !== 'Backspace' || rule.impossible) onChange(toggleImpossible(rule.id));
      return true;
    }
    if (event.key === 'Delete' || event.key === 'Backspace') return (onChange(setAction(rule.id, action.id, '')), true);
    if (event.key !== 'Enter' && event.key !== 'F2' && event.key.length !== 1) return false;
    setEdit(event.key.length === 1 ? event.key : (rule.actions[action.id] ?? ''));
    return true;
  };
  const moveKey = (event: React.KeyboardEvent): boolean => {
    const shape = { size: { row: lines, column: rules.length }, page: lines, isFilled: () => true };
    const to = event.altKey ? null : moved({ anchor: place, focus: place }, event.key, { extend: false, control: event.ctrlKey || event.metaKey }, shape);
    if (to !== null) go(to.focus.row, to.focus.column);
    return to !== null;
  };
  const keyDown = (event: React.KeyboardEvent): void => {
    if (!(event.target instanceof HTMLElement) || event.target.dataset.cell === undefined) return;
    if ((canEdit && commandKey(event)) || moveKey(event) || (canEdit && typeKey(event))) event.preventDefault();
  };
  const paste = (event: React.ClipboardEvent): void => {
    const text = event.clipboardData.getData('text/plain');
    if (!canEdit || edit !== null || event.target instanceof HTMLInputElement || !/[\t\n]/.test(text)) return;
    event.preventDefault();
    const read = tableFromGrid(parsePastedGrid(text), model, newPartId);
    if (!('model' in read)) return void toast.error(read.code === 'no_condition_lines' ? 'No line of conditions was found in what was pasted. Nothing was changed.' : `The paste has ${countOf(read.rules, 'rule')}; a table may have ${read.most.toLocaleString(locale())}. Nothing was changed.`);
    if (read.model.conditions.length > LIMITS.tableLines) return void toast.error(`A table may have ${LIMITS.tableLines} conditions. Nothing was changed.`);
    onChange(() => read.model);
    toast.success(`A table of ${countOf(read.model.rules.length, 'rule')} was pasted in place of the old one.`, { action: { label: 'Undo', onClick: () => onChange(() => model) } });
  };
  const copy = (event: React.ClipboardEvent): void => {
    if (edit !== null || event.target instanceof HTMLInputElement) return;
    event.preventDefault();
    event.clipboardData.setData('text/plain', tableAsGrid(model).map((line) => line.join('\t')).join('\n'));
  };

  return (
    <>
      {printing && <PrintedTable model={model} standingOf={standingOf} />}
      <div ref={scroller} data-screen-only role="grid" aria-label="Decision table" aria-rowcount={lines + 1} aria-colcount={rules.length + 1} onKeyDown={keyDown} onPaste={paste} onCopy={copy} className="max-h-[560px] overflow-auto border-y border-ink text-sm">
        <div style={{ width: NAME_WIDTH + rules.length * width, minWidth: '100%' }}>
          <div role="row" className="sticky top-0 z-20 flex border-b border-ink bg-page" style={{ height: HEAD_HEIGHT }}>
            <span role="columnheader" className="sticky left-0 z-10 shrink-0 self-stretch border-r border-rule2 bg-page px-2 pt-2.5 text-xs text-ink2" style={{ width: NAME_WIDTH }}>
              {countOf(rules.length, 'rule')}
            </span>
            <Columns virtual={columns} count={rules.length} width={width}>
              {(i, style) => {
                const own = rules[i];
                const standing = own === undefined ? null : standingOf(own);
                const gravity = own === undefined ? null : gravityOf(own.id);
                return (
                  <span key={own?.id ?? i} role="columnheader" aria-colindex={i + 2} style={style} className={`absolute flex h-full flex-col items-center justify-center gap-0.5 ${gravity === 'grave' ? 'bg-brick-wash text-brick' : gravity === 'hint' ? 'bg-ochre-wash text-ochre-ink' : ''}`}>
                    <span className={`font-mono text-xs ${gravity === null ? '' : 'underline decoration-wavy'}`}>{i + 1}</span>
                    <span title={standing === null ? 'no coverage item' : STANDING_WORD[standing]} className="h-2.5">
                      {standing !== null && <StandingShape standing={standing} />}
                    </span>
                  </span>
                );
              }}
            </Columns>
          </div>
          {Array.from({ length: lines }, (_, row) => (
            <div key={conditions[row]?.id ?? actions[row - conditions.length]?.id ?? 'impossible'} role="row" aria-rowindex={row + 2} className={`flex ${row === conditions.length - 1 ? 'border-b-[3px] border-double border-ink2' : 'border-b border-rule'}`} style={{ height: row < conditions.length ? CONDITION_HEIGHT : LINE_HEIGHT }}>
              <div role="rowheader" className="sticky left-0 z-10 shrink-0 border-r border-rule2 bg-page" style={{ width: NAME_WIDTH }}>
                <TableLineName model={model} row={row} canEdit={canEdit} onChange={onChange} />
              </div>
              <Columns virtual={columns} count={rules.length} width={width}>
                {(i, style) => {
                  const own = rules[i];
                  if (own === undefined) return null;
                  const at = place.row === row && place.column === i;
                  const text = ruleText(model, own, row);
                  const isAction = row >= conditions.length && row < lines - 1;
                  return (
                    <div
                      key={own.id}
                      role="gridcell"
                      aria-colindex={i + 2}
                      tabIndex={at ? 0 : -1}
                      data-cell={`${row} ${i}`}
                      title={text}
                      onFocus={() => at || onPlace((p) => ({ ...p, row, column: i, turn: 0 }))}
                      onDoubleClick={() => canEdit && isAction && setEdit(text)}
                      style={style}
                      className={`absolute grid h-full place-items-center border-r border-rule px-1 text-center ${own.impossible ? 'bg-page2 text-ink3' : text === '–' ? 'text-ink2' : ''} ${isAction ? 'text-pine' : ''} focus:z-10 focus:bg-blue-wash`}
                    >
                      {at && edit !== null && isAction ? (
                        <input autoFocus aria-label={`Action of rule ${i + 1}`} value={edit} maxLength={LIMITS.title} onChange={(e) => setEdit(e.target.value)} onBlur={() => commit(edit)} onKeyDown={(e) => endEdit(e, edit, commit, () => go(row, i))} className="w-full bg-page px-1 text-center outline-none" />
                      ) : (
                        <span className="line-clamp-2 w-full break-words text-[12px] leading-[15px]">{text}</span>
                      )}
                    </div>
                  );
                }}
              </Columns>
            </div>
          ))}
        </div>
      </div>
    </>
  );
}

/** Rules share the width there is, within limits; beyond, the table scrolls. */
function useRuleWidth(scroller: React.RefObject<HTMLDivElement | null>, rules: number): number {
  const [room, setRoom] = useState(0);
  useEffect(() => {
    const element = scroller.current;
    if (element === null) return undefined;
    const observer = new ResizeObserver(() => setRoom(element.clientWidth - NAME_WIDTH));
    observer.observe(element);
    return () => observer.disconnect();
  }, [scroller]);
  return Math.max(NARROWEST_RULE, Math.min(WIDEST_RULE, Math.floor(room / Math.max(1, rules))));
}

function clamp(at: number, size: number): number {
  return Math.max(0, Math.min(size - 1, at));
}

function endEdit(event: React.KeyboardEvent, text: string, commit: (text: string | null) => void, back: () => void): void {
  if (event.key !== 'Enter' && event.key !== 'Escape' && event.key !== 'Tab') return;
  event.preventDefault();
  event.stopPropagation();
  commit(event.key === 'Escape' ? null : text);
  back();
}

interface ColumnsProps {
  readonly virtual: ReturnType<typeof useVirtualizer<HTMLDivElement, Element>>;
  readonly count: number;
  readonly width: number;
  readonly children: (column: number, style: React.CSSProperties) => React.ReactNode;
}

/** The columns of one line: all of a usual table, those in view of a large one. */
function Columns({ virtual, count, width, children }: ColumnsProps) {
  const places = count <= MOST_DRAWN ? Array.from({ length: count }, (_, index) => ({ index, start: index * width })) : virtual.getVirtualItems();
  return (
    <div className="relative h-full shrink-0" style={{ width: count * width }}>
      {places.map(({ index, start }) => children(index, { left: start, width }))}
    </div>
  );
}
