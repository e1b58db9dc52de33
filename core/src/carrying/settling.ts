import { priorityNamed, type Priority } from '../artefacts/index.ts';
import type { Attachment } from '../attachments/index.ts';
import { ownQueryName, type OwnChoice, type OwnField, type OwnValues } from '../fields/index.ts';
import type { KindAndContent } from '../kinds/index.ts';
import type { Constant } from '../shared/index.ts';
import type { CarriedDesign } from './carried.ts';

/** What of a project carried contents settle into. */
export interface SettledIn {
  readonly fields: readonly OwnField[];
  readonly constants: readonly Constant[];
  readonly depths: readonly string[];
  readonly priorities: readonly Priority[];
  /** The names of its people. */
  readonly people: ReadonlySet<string>;
  readonly hasFile: (id: Attachment['id']) => boolean;
  readonly newId: () => string;
}

/** What the project gets besides artefacts; the very same lists where nothing is missing. */
export interface SettledSettings {
  readonly fields: readonly OwnField[];
  readonly constants: readonly Constant[];
  readonly depths: readonly string[];
  readonly priorities: readonly Priority[];
}

/** What of the file has no place here and stays out, each with how often. */
export interface StaysOut {
  /** Fields called like one here of another type. */
  readonly fields: ReadonlyMap<string, number>;
  /** People that are none here. */
  readonly people: ReadonlyMap<string, number>;
  /** Files whose bytes are neither in the file nor here. */
  readonly files: number;
}

/**
 * Makes contents of another project ones of this: its own fields are those here of the same name and type, made where
 * there is none, choices by their names; depths and constants likewise. A constant that is here keeps its value.
 */
export class Settling {
  readonly settings: SettledSettings;
  readonly #here: SettledIn;
  readonly #fields = new Map<string, { readonly field: OwnField; readonly choices: ReadonlyMap<string, string> } | null>();
  readonly #names = new Map<string, string>();
  readonly #fieldsOut = new Map<string, number>();
  readonly #peopleOut = new Map<string, number>();
  #filesOut = 0;
  #isTold = true;

  constructor({ fields, constants, depths, priorities }: Pick<CarriedDesign, 'fields' | 'constants' | 'depths' | 'priorities'>, here: SettledIn) {
    this.#here = here;
    this.settings = { fields: this.#settleFields(fields), constants: withMissingConstants(constants, here), depths: withMissing(depths, here.depths), priorities: withMissing(priorities, here.priorities) };
    for (const field of fields) this.#names.set(field.id, field.name);
  }

  get staysOut(): StaysOut {
    return { fields: this.#fieldsOut, people: this.#peopleOut, files: this.#filesOut };
  }

  /** A content with its own values, owner and files as they are here; links are led elsewhere by others. What stays out of it is counted where `isTold`. */
  settle<V extends KindAndContent>(value: V, isTold = true): V {
    this.#isTold = isTold;
    const content = { ...value.content, own: this.#own(value.content.own), ...this.#owner(value), ...this.#priority(value), ...this.#files(value) };
    return { ...value, content };
  }

  #settleFields(fields: readonly OwnField[]): readonly OwnField[] {
    let settled = this.#here.fields;
    for (const field of fields) {
      const same = settled.find((f) => !f.removed && ownQueryName(f.name) === ownQueryName(field.name));
      if (same !== undefined && same.type !== field.type) {
        this.#fields.set(field.id, null);
        continue;
      }
      const of = [...(same?.of ?? []), ...field.of.filter((kind) => same?.of.includes(kind) !== true)];
      const known = same?.choices ?? [];
      const missing = field.choices.filter((c) => choiceNamed(known, c.name) === undefined).map((c): OwnChoice => ({ id: this.#here.newId(), name: c.name }));
      const choices = [...known, ...missing];
      const into: OwnField = same === undefined ? { ...field, id: this.#here.newId() as OwnField['id'], choices, required: false, begins: null, removed: false } : { ...same, of, choices };
      const isMore = same === undefined || missing.length > 0 || of.length > same.of.length;
      if (isMore) settled = same === undefined ? [...settled, into] : settled.map((f) => (f === same ? into : f));
      this.#fields.set(field.id, { field: into, choices: new Map(field.choices.map((c) => [c.id, choiceNamed(choices, c.name)?.id ?? c.id])) });
    }
    return settled;
  }

  #own(values: OwnValues): OwnValues {
    return Object.fromEntries(
      Object.entries(values).flatMap(([id, value]) => {
        const into = this.#fields.get(id);
        if (into == null) {
          // A value whose field is gone in the project it comes from has no name to be told by.
          const name = this.#names.get(id);
          if (name !== undefined) this.#tell(this.#fieldsOut, name);
          return [];
        }
        const settle = (text: string): string => into.choices.get(text) ?? text;
        return [[into.field.id, typeof value === 'string' ? settle(value) : value.map(settle)]];
      }),
    );
  }

  #owner({ kind, content }: KindAndContent): { readonly owner?: string } {
    if (kind !== 'case' || content.owner === '' || this.#here.people.has(content.owner)) return {};
    this.#tell(this.#peopleOut, content.owner);
    return { owner: '' };
  }

  #priority({ content }: KindAndContent): { readonly priority?: Priority } {
    if (!('priority' in content)) return {};
    const here = priorityNamed(content.priority, this.settings.priorities);
    return here === null ? {} : { priority: here };
  }

  #tell(out: Map<string, number>, name: string): void {
    if (this.#isTold) out.set(name, (out.get(name) ?? 0) + 1);
  }

  #files(value: KindAndContent): object {
    const kept = (attachments: readonly Attachment[]): readonly Attachment[] => {
      const there = attachments.filter((a) => this.#here.hasFile(a.id));
      if (this.#isTold) this.#filesOut += attachments.length - there.length;
      return there;
    };
    const steps = value.kind === 'case' || value.kind === 'shared' ? { steps: value.content.steps.map((s) => (s.kind === 'step' ? { ...s, attachments: kept(s.attachments) } : s)) } : {};
    return { ...steps, ...('attachments' in value.content ? { attachments: kept(value.content.attachments) } : {}) };
  }
}

function choiceNamed(choices: readonly OwnChoice[], name: string): OwnChoice | undefined {
  return choices.find((c) => c.name.trim().toLowerCase() === name.trim().toLowerCase());
}

function withMissingConstants(constants: readonly Constant[], here: SettledIn): readonly Constant[] {
  const missing = constants.filter((c) => !here.constants.some((known) => known.name === c.name));
  // Configurations are of their project: only what holds in none comes along. A secret comes without its value, whatever a file says.
  return missing.length === 0 ? here.constants : [...here.constants, ...missing.map((c) => ({ ...c, id: here.newId(), value: c.secret ? '' : c.value, others: {} }))];
}

/** Names that are here already in other capitals are those. */
function withMissing(names: readonly string[], here: readonly string[]): readonly string[] {
  const missing = names.filter((name) => !here.some((known) => known.toLowerCase() === name.toLowerCase()));
  return missing.length === 0 ? here : [...here, ...missing];
}
