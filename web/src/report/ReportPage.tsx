import { reportDocument, reportMarkdown, reportPage, reportSheets, type ReportDocument } from '@caderno/core/report';
import { baselineNumberSchema, type Baseline } from '@caderno/contract';
import { Printer } from 'lucide-react';
import { useMemo, type ReactNode } from 'react';
import { Link } from 'react-router';
import { tellFailure, useBaselines } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { rowsFile } from '../files/index.ts';
import { Spread, address, useFrame, useParameters } from '../frame/index.ts';
import { Button, Choose, Empty, PickAction, saveFile } from '../look/index.ts';
import { ReportSheet } from './ReportSheet.tsx';
import { REPORT_WORDS } from './reportWords.ts';
import { useReport } from './useReport.ts';
import { useReportNote } from './useReportNote.ts';

const FORMATS = [
  { value: 'html', name: 'Page (HTML, one file)' },
  { value: 'md', name: 'Markdown' },
  { value: 'xlsx', name: 'Workbook (XLSX)' },
] as const;
type Format = (typeof FORMATS)[number]['value'];

/** What those who decide are told of the project as it is now. */
export function ReportPage() {
  const { isPast } = useFrame();
  return isPast ? <Empty title="The report is of now">In the project of now it is held against any baseline, and says what changed since. What stood then is printed from the specification.</Empty> : <ReportOfNow />;
}

/** The report as it will be printed; beside it what it is held against, what one says first, and what it is saved as. */
function ReportOfNow() {
  const { project } = useFrame();
  const [search, setParameters] = useParameters();
  const baselines = useBaselines(project);
  const since = sinceOf(search.get('since'), baselines.data);
  const { report, error, past } = useReport(project, since);
  const [note, setNote] = useReportNote();
  const document = useMemo(() => (report === undefined ? null : reportDocument(report, note, REPORT_WORDS)), [note, report]);
  return (
    <Spread
      chapter="report"
      leftShare={26}
      leftLabel="What the report says"
      rightLabel="Report"
      left={
        <div className="px-5 pb-10 pt-5 print:hidden">
          <h1 className="font-serif text-2xl font-semibold">Report</h1>
          <p className="mt-1 text-sm text-ink2">One to three pages for those who decide, as it stands now.</p>
          <Part title="Held against">
            <Choose label="Held against" value={since == null ? NOTHING : String(since)} options={[{ value: NOTHING, name: 'no baseline' }, ...(baselines.data ?? []).map((b) => ({ value: String(b.number), name: `B-${b.number} ${b.name}` }))]} onChange={(value) => setParameters({ since: value })} />
          </Part>
          <Part title="What you say first">
            <textarea data-first aria-label="What you say first" rows={6} maxLength={LONGEST_NOTE} className="w-full rounded-field border border-rule2 bg-page px-2 py-1.5 text-sm" placeholder="What matters most, in your words" value={note} onChange={(e) => setNote(e.target.value)} />
            <p className="mt-1 text-xs text-ink2">Stands at the top of the report and of its files. It is kept in this browser.</p>
          </Part>
          <div className="mt-5 flex flex-wrap gap-2">
            <Button onClick={() => window.print()}>
              <Printer size={13} aria-hidden="true" /> Print
            </Button>
            {document !== null && <PickAction label="Save as a file" options={FORMATS} onPick={(format: Format) => save(document, project, format)} />}
          </div>
          <p className="mt-2 text-xs text-ink2">The browser prints it on A4, or saves it as PDF.</p>
          <p className="mt-5 border-t border-rule pt-3 text-sm">
            <Link className="inline-flex min-h-6 items-center underline decoration-rule2 underline-offset-2" to={address.specification(project)}>
              The full specification
            </Link>
          </p>
          {past != null && <p className="mt-3 text-sm text-brick">Some days of the past could not be counted; the curve is right where it is drawn.</p>}
        </div>
      }
      right={document === null ? <Loading error={error ?? baselines.error} /> : <ReportSheet document={document} />}
    />
  );
}

const NOTHING = 'none';
const LONGEST_NOTE = 2_000;

/** The latest baseline of everything, where none is named; undefined: it is not known yet. */
function sinceOf(asked: string | null, baselines: readonly Baseline[] | undefined): Baseline['number'] | null | undefined {
  if (baselines === undefined) return undefined;
  if (asked === null) return baselines.find((b) => b.part === '')?.number ?? null;
  const number = baselineNumberSchema.safeParse(asked);
  return number.success ? (baselines.find((b) => b.number === number.data)?.number ?? null) : null;
}

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section className="mt-5">
      <h2 className="mb-1 text-sm font-semibold">{title}</h2>
      {children}
    </section>
  );
}

function save(document: ReportDocument, project: string, format: Format): void {
  const name = `${project} report.${format}`;
  switch (format) {
    case 'html':
      return saveFile(name, new Blob([reportPage(document, REPORT_WORDS)], { type: 'text/html' }));
    case 'md':
      return saveFile(name, new Blob([reportMarkdown(document)], { type: 'text/markdown' }));
    case 'xlsx':
      void rowsFile().workbookOf(reportSheets(document)).then((bytes) => saveFile(name, new Blob([bytes])), tellFailure);
  }
}
