import { attachmentForm, safeFileName, type Attachment, type AttachmentId } from '../attachments/index.ts';
import type { CaseId } from '../artefacts/index.ts';
import type { CaseContent } from '../cases/index.ts';

/** A file that lies beside a file of cases, and its path from there. */
export interface FileBeside {
  readonly path: string;
  readonly attachment: Attachment;
}

/** A file of a case; `step`: the place of the step that it is attached to, from 1; null: to the case as a whole. */
export interface FileOfCase extends FileBeside {
  readonly step: number | null;
}

/**
 * The files attached to cases and to steps written in them, each with a path below `files/` that is its own whatever
 * letters a file system tells apart. The same bytes are there once, in the folder of the first case that has them.
 */
export class FilesBeside {
  readonly #beside = new Map<AttachmentId, FileBeside>();
  readonly #taken = new Set<string>();

  /** All that have been named so far. */
  get all(): readonly FileBeside[] {
    return [...this.#beside.values()];
  }

  /** In the order in which they stand: those of the case, then those of its steps. */
  ofCase(id: CaseId, content: CaseContent): readonly FileOfCase[] {
    const own = content.attachments.map((attachment) => ({ step: null, ...this.#file(id, attachment) }));
    const ofSteps = content.steps.flatMap((step, i) => (step.kind === 'step' ? step.attachments.map((attachment) => ({ step: i + 1, ...this.#file(id, attachment) })) : []));
    return [...own, ...ofSteps];
  }

  #file(id: CaseId, attachment: Attachment): FileBeside {
    const there = this.#beside.get(attachment.id);
    if (there !== undefined) return there;
    const made = { path: this.#freePath(id, safeFileName(attachment.name, attachment.type ?? 'image/png')), attachment };
    this.#beside.set(attachment.id, made);
    return made;
  }

  #freePath(id: CaseId, name: string): string {
    const dot = name.lastIndexOf('.');
    for (let turn = 1; ; turn += 1) {
      const path = `files/${id}/${turn === 1 ? name : `${name.slice(0, dot)} (${turn})${name.slice(dot)}`}`;
      const key = path.normalize('NFC').toLowerCase();
      if (this.#taken.has(key)) continue;
      this.#taken.add(key);
      return path;
    }
  }
}

/** How a table names the files of a case in a cell: a path a line, those of steps behind the number of their step. */
export function filesCell(files: readonly FileOfCase[]): string {
  return files.map(({ step, path }) => (step === null ? path : `step ${step}: ${path}`)).join('\n');
}

/** The same in Markdown: pictures seen where they are named, others as links. */
export function filesMarkdown(files: readonly FileOfCase[]): string {
  const link = ({ path, attachment }: FileBeside): string => `${attachmentForm(attachment.type) === 'picture' ? '!' : ''}[${attachment.name.replaceAll(/[[\]\\]/g, String.raw`\$&`)}](<${path}>)`;
  return files.map((file) => (file.step === null ? link(file) : `step ${file.step}: ${link(file)}`)).join('\n');
}
