import { MOST_HANDED_OFF, configurationNames, type Dividing, type HandOffLine } from '@caderno/core/handOffs';
import { configurationValues } from '@caderno/core/shared';
import { LIMITS } from '@caderno/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { useMembers, useSettings } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, countOf, locale, Answer, Tick, TickIn, TextBox, TextArea, Labelled } from '../look/index.ts';
import { SharesTable } from './SharesTable.tsx';
import type { HandOffDraft } from './handOffDraft.ts';

interface Props {
  /** Of what is handed off, and where that is. */
  readonly id: string;
  readonly to: string;
  readonly title: string;
  readonly draft: HandOffDraft;
  readonly put: (part: Partial<HandOffDraft>) => void;
  readonly lines: readonly HandOffLine[];
  readonly canTake: boolean;
  readonly onTake: () => void;
}

const DIVIDING_WORD: Record<Dividing, string> = { evenly: 'about the same time for all', modules: 'each module to one person', owners: 'to the owners, the rest evenly' };

/** What is handed off, in which configurations, to whom and until when. */
export function HandOffForm({ id, to, title, draft, put, lines, canTake, onTake }: Props) {
  const instances = lines.reduce((sum, line) => sum + line.instances, 0);
  return (
    <form
      className="space-y-4 px-6 pt-5 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        if (canTake) onTake();
      }}
    >
      <header>
        <h1 className="font-serif text-xl font-semibold">Hand off</h1>
        <p className="text-ink2">
          <Link className="font-mono text-xs underline decoration-rule2" to={to}>{id}</Link> {title}
        </p>
      </header>
      <Labelled label="Name">
        <TextBox className="w-full" maxLength={LIMITS.title} placeholder={title} value={draft.name} onChange={(text) => put({ name: text })} />
      </Labelled>
      <People draft={draft} put={put} />
      <fieldset>
        <legend className="font-semibold">How it is given out</legend>
        {(Object.keys(DIVIDING_WORD) as Dividing[]).map((dividing) => (
          <Answer key={dividing} name="dividing" checked={draft.dividing === dividing} onPick={() => put({ dividing })}>
            {DIVIDING_WORD[dividing]}
          </Answer>
        ))}
        {lines.length > 0 && draft.people.length > 0 && <SharesTable lines={lines} />}
      </fieldset>
      <Configurations draft={draft} put={put} />
      <Labelled label="Until" hint="may stay empty">
        <TextBox type="date" className="w-44" value={draft.due} onChange={(text) => put({ due: text })} />
      </Labelled>
      <Labelled label="Note" hint="stands above the cases">
        <TextArea className="w-full" rows={2} maxLength={LIMITS.note} value={draft.note} onChange={(text) => put({ note: text })} />
      </Labelled>
      <div className="-mx-6 min-[821px]:sticky min-[821px]:bottom-0 flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule2 bg-page px-6 py-3">
        <Button type="submit" look="accent" disabled={!canTake}>
          Hand off {countOf(instances, 'instance')}
        </Button>
        {instances > MOST_HANDED_OFF && <p role="alert" className="text-brick">{MOST_HANDED_OFF.toLocaleString(locale())} instances are the most. Choose fewer configurations, or leave something out.</p>}
        {lines.length === 0 && <p role="alert" className="text-brick">Nothing is left to hand off.</p>}
        <p className="text-xs text-ink2">What is edited later touches nothing of it.</p>
      </div>
    </form>
  );
}

interface PartProps {
  readonly draft: HandOffDraft;
  readonly put: (part: Partial<HandOffDraft>) => void;
}

/** Members of the project, and whoever else executes. */
function People({ draft: { people }, put }: PartProps) {
  const { project } = useFrame();
  const [other, setOther] = useState('');
  const members = (useMembers(project).data ?? []).map((m) => m.name);
  const names = [...members, ...people.filter((name) => !members.includes(name))];
  const add = (): void => {
    const name = other.trim();
    if (name !== '' && !people.includes(name)) put({ people: [...people, name] });
    setOther('');
  };
  return (
    <fieldset>
      <legend className="font-semibold">Who executes it</legend>
      <ul className="mt-0.5 grid max-h-48 grid-cols-2 gap-x-4 overflow-y-auto max-[1000px]:grid-cols-1">
        {names.map((name) => (
          <li key={name}>
            <TickIn item={name} of={people} onChange={(some) => put({ people: some })}>
              <span className="min-w-0 break-words">{name}</span>
            </TickIn>
          </li>
        ))}
      </ul>
      <span className="mt-1 flex items-center gap-2">
        <TextBox
          aria-label="Somebody else"
          placeholder="Somebody else"
          className="w-44"
          maxLength={LIMITS.name}
          value={other}
          onChange={setOther}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            add();
          }}
          onBlur={add}
        />
        <Button onClick={add} disabled={other.trim() === ''}>
          Add
        </Button>
      </span>
    </fieldset>
  );
}

/** The project’s configurations: everything is executed once in each that is chosen. */
function Configurations({ draft: { configurations }, put }: PartProps) {
  const { project } = useFrame();
  const all = useSettings(project).data?.settings.configurations ?? [];
  const names = configurationNames(all);
  return (
    <fieldset>
      <legend className="font-semibold">In which configurations</legend>
      {all.length === 0 && (
        <p className="text-ink2">
          The project has none: everything is executed once. <Link className="underline decoration-rule2" to={address.settings(project)}>Make some</Link> where it is to run in several browsers, say.
        </p>
      )}
      {all.map(({ id, ...configuration }) => (
        <Tick key={id} checked={configurations.includes(id)} onChange={(ticked) => put({ configurations: all.map((c) => c.id).filter((c) => (c === id ? ticked : configurations.includes(c))) })}>
          <span>
            {names.get(id)} <span className="text-xs text-ink2">{configurationValues(configuration)}</span>
          </span>
        </Tick>
      ))}
      {all.length > 0 && <p className="text-xs text-ink2">{configurations.length === 0 ? 'None chosen: everything is executed once.' : `Everything is executed once in ${configurations.length === 1 ? 'it' : `each of the ${configurations.length}`}, unless the suite says where it runs.`}</p>}
    </fieldset>
  );
}
