import { configurationsRun, runsInAround, withConfiguration, type RunsIn, type SuiteContent, type SuiteEntry } from '@caderno/core/suites';
import { useConfigurationName } from '../configurations/index.ts';
import { Button, Dialog, TextButton, Tick } from '../look/index.ts';

interface Props {
  readonly entry: SuiteEntry;
  readonly name: string;
  readonly entries: readonly SuiteEntry[];
  readonly configurations: SuiteContent['configurations'];
  readonly onChange: (runsIn: RunsIn) => void;
  readonly onClose: () => void;
}

/** In which of the suite’s configurations a part or a member runs. */
export function RunsInDialog({ entry, name, entries, configurations, onChange, onClose }: Props) {
  const nameOf = useConfigurationName();
  const place = { own: entry.runsIn, around: runsInAround(entries, entry.id) };
  const runs = configurationsRun(place.own ?? place.around, configurations);
  const usual = place.around === null ? 'in all of the suite' : 'as the part around it';
  return (
    <Dialog title={`Where ${name === '' ? 'this part' : name} runs`} onClose={onClose} keepsAtOnce>
      <ul className="text-sm">
        {configurations.map((id) => (
          <li key={id}>
            <Tick checked={runs.includes(id)} onChange={(ticked) => onChange(withConfiguration(place, id, ticked, configurations))}>
              {nameOf(id)}
            </Tick>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-sm text-ink2">
        {entry.runsIn === null ? `It runs ${usual}.` : runs.length === 0 ? 'It runs nowhere: it is in the suite, and is not executed. ' : ''}
        {entry.runsIn !== null && <TextButton onClick={() => onChange(null)}>{usual}</TextButton>}
      </p>
      <p className="mt-4 text-right">
        <Button onClick={onClose}>Close</Button>
      </p>
    </Dialog>
  );
}
