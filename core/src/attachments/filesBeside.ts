import type { ArtefactId } from '../artefacts/index.ts';
import { attachmentForm, safeFileName, type Attachment, type AttachmentId } from './attachment.ts';

/** The column that names the files lying beside a table; for reading only. */
export const FILES_COLUMN = 'attached files';

/** A file that lies beside a written one, and its path from there. */
export interface FileBeside {
  readonly path: string;
  readonly attachment: Attachment;
}

/** Something that is attached; `step`: the place of the step that it is attached to, from 1; null: to the artefact as a whole. */
export interface Attached {
  readonly step: number | null;
  readonly attachment: Attachment;
}

/** The same with where it lies. */
export interface AttachedFile extends FileBeside {
  readonly step: number | null;
}

/**
 * The files attached to what is written out, each with a path below `files/` that is its own whatever letters a file
 * system tells apart. The same bytes are there once, in the folder of the first artefact that has them.
 */
export class FilesBeside {
  readonly #beside = new Map<AttachmentId, FileBeside>();
  readonly #taken = new Set<string>();

  /** All that have been named so far. */
  get all(): readonly FileBeside[] {
    return [...this.#beside.values()];
  }

  /** Those of an artefact, in the order in which they stand. */
  of(id: ArtefactId, attached: readonly Attached[]): readonly AttachedFile[] {
    return attached.map(({ step, attachment }) => ({ step, ...this.#file(id, attachment) }));
  }

  #file(id: ArtefactId, attachment: Attachment): FileBeside {
    const there = this.#beside.get(attachment.id);
    if (there !== undefined) return there;
    const made = { path: this.#freePath(id, safeFileName(attachment.name, attachment.type ?? 'image/png')), attachment };
    this.#beside.set(attachment.id, made);
    return made;
  }

  #freePath(id: ArtefactId, name: string): string {
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

/** How a table names the files of an artefact in a cell: a path a line, those of steps behind the number of their step. */
export function filesCell(files: readonly AttachedFile[]): string {
  return files.map(({ step, path }) => (step === null ? path : `step ${step}: ${path}`)).join('\n');
}

/** The same in Markdown: pictures seen where they are named, others as links. */
export function filesMarkdown(files: readonly AttachedFile[]): string {
  const link = ({ path, attachment }: FileBeside): string => `${attachmentForm(attachment.type) === 'picture' ? '!' : ''}[${attachment.name.replaceAll(/[[\]\\]/g, String.raw`\$&`)}](<${path}>)`;
  return files.map((file) => (file.step === null ? link(file) : `step ${file.step}: ${link(file)}`)).join('\n');
}
