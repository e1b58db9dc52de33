import { useLocation } from 'react-router';
import { Button, Dialog, Section } from '../look/index.ts';
import { useAllCommands } from './commands.ts';
import { PAGE_HELP, TECHNIQUE_HELP } from './pageHelp.ts';

const IN_STEPS = [
  ['Enter', 'next step; from the title, to the steps'],
  ['Tab', 'to what is expected, and on'],
  ['Escape', 'stop writing: the step is pointed at'],
  ['Space, Shift ↑ ↓', 'select the step, or more of them'],
  ['Ctrl C X V D, Delete', 'copy, cut, paste, duplicate, remove what is selected'],
  ['Alt ↑ / ↓', 'move the step, or those selected'],
  ['<', 'put in a parameter, or make a new one'],
  ['/', 'put in shared steps or a call'],
  ['Ctrl Enter', 'to the data'],
  ['Ctrl Z / Ctrl Shift Z', 'undo, redo'],
] as const;
const IN_DATA = [
  ['arrows, Tab', 'move from cell to cell'],
  ['Home, End, Page ↑ ↓', 'to the ends of the row, by a page; with Ctrl to the corners'],
  ['Ctrl + arrows', 'to the edge of what is filled'],
  ['Enter or F2', 'edit the cell; typing replaces it'],
  ['Shift + arrows', 'select a range'],
  ['Ctrl C / Ctrl V', 'copy, paste a range of a spreadsheet'],
  ['Delete', 'empty the cells'],
  ['Escape, then Tab', 'leave the grid'],
] as const;
const IN_MODELS = [
  ['Enter', 'to the next line; after the last a new one'],
  ['↑ / ↓', 'to the field above or below'],
  ['Ctrl Backspace', 'take a transition away'],
] as const;
const IN_TABLE = [
  ['↑ ↓ ← →', 'another cell'],
  ['F2, a letter', 'write in the cell; F2 on a title too'],
  ['Enter, Tab', 'keep it, and go down or on'],
  ['Delete', 'empty it'],
  ['Ctrl C, V, D', 'copy, paste, fill from above; into all that are selected'],
] as const;
const IN_OUTLINE = [
  ['↑ / ↓', 'another requirement'],
  ['Space', 'select it; with Shift all between'],
  ['Alt ↑ / ↓', 'move it up or down'],
  ['Alt → / ←', 'move it in or out'],
] as const;
const IN_TEXT = [
  ['arrows', 'mark a word or a line of a requirement’s text'],
  ['Shift + arrows', 'mark more'],
  ['Enter', 'make a condition of it; Tab leads to the question'],
] as const;

/** What the open page is for, the techniques where they are used, and the keys. */
export function HelpDialog({ onClose }: { readonly onClose: () => void }) {
  const commands = useAllCommands().filter((c) => c.keyLabel !== undefined);
  const page = useLocation().pathname.split('/')[2] ?? '';
  const about = PAGE_HELP[page === 'condition' ? 'conditions' : page];
  const isDesign = page === 'conditions' || page === 'condition' || page === 'coverage';
  return (
    <Dialog title="Help" onClose={onClose} wide>
      {about !== undefined && (
        <Section title="This page" className="!mt-0">
          <p className="mt-2 leading-6">{about.join(' ')}</p>
        </Section>
      )}
      {isDesign && (
        <Section title="Techniques">
          <dl className="mt-2 space-y-2.5 text-sm">
            {TECHNIQUE_HELP.map(({ name, what, example, source }) => (
              <div key={name}>
                <dt className="font-semibold">{name}</dt>
                <dd>
                  {what} <span className="text-ink2">For example: {example}</span> <span className="block text-xs text-ink2">{source}</span>
                </dd>
              </div>
            ))}
          </dl>
        </Section>
      )}
      <Section title="Keys">
        <div className="mt-2 grid grid-cols-2 gap-x-10 gap-y-5 max-phone:grid-cols-1">
          <Keys title="On this page" lines={commands.map((c) => [c.keyLabel ?? '', c.title])} />
          <div className="space-y-5">
            <Keys title="In steps" lines={IN_STEPS} />
            <Keys title="In data" lines={IN_DATA} />
            <Keys title="In a condition’s fields" lines={IN_MODELS} />
            <Keys title="In the table of a list" lines={IN_TABLE} />
            <Keys title="In the outline" lines={IN_OUTLINE} />
            <Keys title="In a requirement’s text" lines={IN_TEXT} />
          </div>
        </div>
      </Section>
      <Button className="mt-5" onClick={onClose}>
        Done
      </Button>
    </Dialog>
  );
}

function Keys({ title, lines }: { readonly title: string; readonly lines: readonly (readonly [string, string])[] }) {
  return (
    <section>
      <h4 className="border-b border-rule pb-1 font-semibold">{title}</h4>
      <dl className="mt-1 grid grid-cols-[9.5rem_1fr] gap-y-1 text-sm">
        {lines.map(([key, meaning]) => (
          <div key={key + meaning} className="contents">
            <dt className="font-mono text-xs leading-5 text-ink2">{key}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
