import { Dialog } from '../look/index.ts';
import { useAllCommands } from './commands.ts';

const IN_STEPS = [
  ['Enter', 'next step'],
  ['Tab', 'to what is expected, and on'],
  ['Alt ↑ / ↓', 'move the step'],
  ['<', 'put in a parameter, or make a new one'],
  ['Backspace', 'in an empty step: remove it'],
  ['Ctrl Z / Ctrl Shift Z', 'undo, redo'],
] as const;
const IN_DATA = [
  ['arrows, Tab', 'move from cell to cell'],
  ['Enter or F2', 'edit the cell; typing replaces it'],
  ['Shift + arrows', 'select a range'],
  ['Ctrl C / Ctrl V', 'copy, paste a range of a spreadsheet'],
  ['Delete', 'empty the cells'],
] as const;
const IN_OUTLINE = [
  ['↑ / ↓', 'another requirement'],
  ['Alt ↑ / ↓', 'move it up or down'],
  ['Alt → / ←', 'move it in or out'],
] as const;

/** The keys of the page that is open, and those of steps, data and outline. */
export function KeysHelp({ onClose }: { readonly onClose: () => void }) {
  const commands = useAllCommands().filter((c) => c.keyLabel !== undefined);
  return (
    <Dialog title="Keys" onClose={onClose} wide>
      <div className="grid grid-cols-2 gap-x-10 gap-y-5">
        <Keys title="On this page" lines={commands.map((c) => [c.keyLabel ?? '', c.title])} />
        <div className="space-y-5">
          <Keys title="In steps" lines={IN_STEPS} />
          <Keys title="In data" lines={IN_DATA} />
          <Keys title="In the outline" lines={IN_OUTLINE} />
        </div>
      </div>
    </Dialog>
  );
}

function Keys({ title, lines }: { readonly title: string; readonly lines: readonly (readonly [string, string])[] }) {
  return (
    <section>
      <h3 className="border-b border-rule pb-1 font-semibold">{title}</h3>
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
