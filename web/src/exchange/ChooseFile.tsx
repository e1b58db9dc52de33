import { FileUp } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { useTracker } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { Button, FileButton, Section, ago } from '../look/index.ts';

interface Props {
  readonly onChoose: (file: File) => void;
  /** What can be in it: name of the format, and how it is read. */
  readonly formats: readonly (readonly [string, string])[];
  /** Endings of file names. */
  readonly accept: string;
  /** Absent: the tracker holds none of these. */
  readonly onStories?: () => void;
  readonly fromTracker?: boolean;
  /** Absent: this is where design files are brought in. */
  readonly orDesign?: string;
}

/** Where a file is chosen or dropped, and what can be in it. */
export function ChooseFile({ onChoose, formats, accept, onStories, fromTracker = false, orDesign }: Props) {
  const { project } = useFrame();
  const [over, setOver] = useState(false);
  const tracker = useTracker(project).data;
  return (
    <>
      <div
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          const [file] = event.dataTransfer.files;
          if (file !== undefined) onChoose(file);
        }}
        className={`mt-5 grid place-items-center rounded-[8px] border border-dashed px-6 py-12 text-center ${over ? 'border-blue bg-blue-wash' : 'border-rule2 bg-page2'}`}
      >
        <FileUp size={26} aria-hidden="true" className="text-ink2" />
        <p className="mt-2 font-serif text-lg font-semibold">Drop a file here</p>
        <p className="mb-3 mt-0.5 text-sm text-ink2">Nothing is changed before you have seen what would be.</p>
        <FileButton label="File to import" accept={accept} look={fromTracker ? 'plain' : 'accent'} onChoose={onChoose}>
          Choose a file
        </FileButton>
      </div>
      <dl className="mt-4 grid grid-cols-[repeat(auto-fit,minmax(10.5rem,1fr))] gap-x-6 gap-y-2 text-sm">
        {formats.map(([name, what]) => (
          <div key={name}>
            <dt className="font-semibold">{name}</dt>
            <dd className="text-ink2">{what}</dd>
          </div>
        ))}
      </dl>
      {orDesign !== undefined && (
        <p className="mt-4 text-sm text-ink2">
          A part of another project?{' '}
          <Link to={orDesign} className="underline decoration-rule2 underline-offset-2">
            Bring in its design file
          </Link>
        </p>
      )}
      {onStories !== undefined && tracker?.connected === true && (
        <Section title="Story tracker" aside={tracker.checkedAt === null ? undefined : `asked ${ago(tracker.checkedAt)}`}>
          <p className="mt-2 text-sm">
            {tracker.newStories === 0 && tracker.changedStories === 0 ? 'As far as is known, nothing has changed there since the last import.' : `${tracker.newStories} new and ${tracker.changedStories} changed since the last import.`}
          </p>
          <Button look={fromTracker ? 'accent' : 'plain'} className="mt-2" onClick={onStories}>
            Bring in its stories
          </Button>
        </Section>
      )}
    </>
  );
}
