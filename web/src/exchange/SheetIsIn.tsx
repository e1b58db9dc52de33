import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Button, Section } from '../look/index.ts';

interface Props {
  readonly sheet: string;
  readonly others: readonly string[];
  readonly onRead: (sheet: string) => void;
  /** What else another sheet can be read as. */
  readonly also?: (sheet: string) => ReactNode;
  /** Where what came in stands. */
  readonly there: string;
}

/** One sheet of a workbook came in; the others wait. */
export function SheetIsIn({ sheet, others, onRead, also, there }: Props) {
  return (
    <Section title={`“${sheet}” is in`} aside="the workbook has other sheets; each comes in by itself">
      <div className="mt-3 flex flex-wrap gap-2">
        {others.map((other) => (
          <span key={other} className="inline-flex items-center gap-1">
            <Button onClick={() => onRead(other)}>Read “{other}”</Button>
            {also?.(other)}
          </span>
        ))}
        <Link to={there} className="inline-flex h-8 items-center rounded-panel border border-blue bg-blue px-3 text-sm font-semibold text-on-accent">
          Open what came in
        </Link>
      </div>
    </Section>
  );
}
