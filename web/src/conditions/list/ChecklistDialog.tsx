import type { RequirementId } from '@caderno/core/artefacts';
import { EMPTY_CONDITION, MOST_CHECKLIST_ENTRIES, parseChecklist, type ConditionContent, type Polarity } from '@caderno/core/conditions';
import { useState } from 'react';
import { toast } from 'sonner';
import { useWrite } from '../../artefacts/index.ts';
import { useFrame } from '../../frame/index.ts';
import { Button, Choose, Dialog, POLARITY_WORD, countOf, options, TextArea, Labelled } from '../../look/index.ts';

interface Props {
  readonly requirement: RequirementId;
  readonly version: number;
  readonly onClose: () => void;
}

/** Many plain conditions at once, typed or pasted a line each; indentation nests them. */
export function ChecklistDialog({ requirement, version, onClose }: Props) {
  const { project } = useFrame();
  const write = useWrite(project);
  const [text, setText] = useState('');
  const [said, setSaid] = useState<Readonly<Record<number, Polarity>>>({});
  const entries = parseChecklist(text);
  const levelOf = (at: number): number => (entries[at]?.under == null ? 0 : levelOf(entries[at].under) + 1);
  const make = async (): Promise<void> => {
    const made = entries.map(({ title, polarity, under }, order) => {
      const content: ConditionContent = { ...EMPTY_CONDITION, title, polarity: said[order] ?? polarity, requirements: [{ id: requirement, seenVersion: version, anchor: null }], order };
      return { kind: 'condition' as const, content, under };
    });
    const ids = await write({ made, detail: `Checklist for ${requirement}` });
    if (ids === null) return;
    toast.success(`${countOf(ids.length, 'condition')} made. The journal can undo it.`);
    onClose();
  };
  return (
    <Dialog title={`A checklist for ${requirement}`} onClose={onClose} wide>
      <div className="grid grid-cols-2 gap-6">
        <Labelled label="One condition a line. Indented lines stand below; + before the words is positive, ! negative." pale className="text-sm">
          <TextArea autoFocus value={text} onChange={setText} rows={14} placeholder={'Receipt\n  dated within 60 days\n  ! dated after the bill'} className="w-full font-mono text-xs leading-5" />
        </Labelled>
        <div>
          <p className="text-xs text-ink2">{countOf(entries.length, 'condition')}, each plain until it is modelled</p>
          <ol className="mt-1 max-h-[320px] overflow-y-auto text-sm">
            {entries.map((entry, i) => (
              <li key={i} className="flex items-center gap-2 border-b border-rule py-0.5" style={{ paddingLeft: Math.min(levelOf(i), 6) * 16 }}>
                <span className="min-w-0 flex-1 truncate">{entry.title}</span>
                <Choose label={`Polarity of ${entry.title}`} value={said[i] ?? entry.polarity} options={options(POLARITY_WORD)} onChange={(polarity) => setSaid({ ...said, [i]: polarity })} />
              </li>
            ))}
          </ol>
          {entries.length === MOST_CHECKLIST_ENTRIES && <p className="mt-1 text-xs text-ochre-ink">The first {MOST_CHECKLIST_ENTRIES} lines are taken; make the rest after them.</p>}
        </div>
      </div>
      <div className="mt-5 flex gap-2">
        <Button look="accent" disabled={entries.length === 0} onClick={() => void make()}>
          Make {countOf(entries.length, 'condition')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}
