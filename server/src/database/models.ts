import type { ArtefactKind, ArtefactState } from '@caderno/core/artefacts';
import type { ChangeAction, Role } from '@caderno/contract';
import { DataTypes, Model, type CreationOptional, type InferAttributes, type InferCreationAttributes, type ModelStatic, type Sequelize } from 'sequelize';

export class PersonRow extends Model<InferAttributes<PersonRow>, InferCreationAttributes<PersonRow>> {
  declare id: CreationOptional<string>;
  declare name: string;
  declare email: string;
  /** Argon2id; null for demo people, who have no password. */
  declare passwordHash: string | null;
  declare administrator: boolean;
  /** What a demo person does; null for everyone else. */
  declare demoJob: string | null;
}

export class ProjectRow extends Model<InferAttributes<ProjectRow>, InferCreationAttributes<ProjectRow>> {
  declare id: CreationOptional<string>;
  declare key: string;
  declare name: string;
  /** Made by one of the demo's people, who have a role in such projects only. */
  declare demo: boolean;
  /** Counts the commands on the project; what is computed is tagged with it. */
  declare revision: CreationOptional<number>;
}

export class MemberRow extends Model<InferAttributes<MemberRow>, InferCreationAttributes<MemberRow>> {
  declare projectId: string;
  declare personId: string;
  declare role: Role;
}

export class ArtefactRow extends Model<InferAttributes<ArtefactRow>, InferCreationAttributes<ArtefactRow>> {
  declare id: CreationOptional<string>;
  declare projectId: string;
  declare kind: ArtefactKind;
  declare number: number;
  /** Row id of the requirement above. */
  declare parentId: string | null;
  declare position: number;
  declare state: ArtefactState;
  declare head: number;
  declare meaningSince: number;
  declare agreedVersion: number | null;
  declare title: string;
  declare module: string;
  declare risk: string | null;
  declare priority: string | null;
  declare owner: string;
  declare tags: string[];
  /** Values of the project's own fields. */
  declare own: object;
  /** What lists show beyond the columns above; see summary.ts. */
  declare facts: object;
  declare authorId: string;
  declare updatedAt: Date;
  declare deletedAt: Date | null;
}

export class VersionRow extends Model<InferAttributes<VersionRow>, InferCreationAttributes<VersionRow>> {
  declare artefactId: string;
  declare version: number;
  declare content: object;
  declare schema: number;
  declare hash: string;
  declare authorId: string;
  declare at: Date;
  declare note: string;
  declare changeId: string;
}

export class DraftRow extends Model<InferAttributes<DraftRow>, InferCreationAttributes<DraftRow>> {
  declare artefactId: string;
  declare personId: string;
  declare base: number;
  declare content: object;
  declare schema: number;
  declare at: Date;
}

export class ChangeRow extends Model<InferAttributes<ChangeRow>, InferCreationAttributes<ChangeRow>> {
  declare id: string;
  declare projectId: string;
  declare revision: number;
  declare action: ChangeAction;
  declare authorId: string;
  declare at: Date;
  /** How many parts it has. */
  declare size: number;
  declare detail: string;
  declare note: string;
  declare commandId: string | null;
  declare undoneBy: string | null;
}

const uuidKey = { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 };
const bigKey = { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true };
const text = DataTypes.TEXT;
const int = DataTypes.INTEGER;
const when = DataTypes.DATE;

export interface Models {
  readonly Person: ModelStatic<PersonRow>;
  readonly Project: ModelStatic<ProjectRow>;
  readonly Member: ModelStatic<MemberRow>;
  readonly Artefact: ModelStatic<ArtefactRow>;
  readonly Version: ModelStatic<VersionRow>;
  readonly Draft: ModelStatic<DraftRow>;
  readonly Change: ModelStatic<ChangeRow>;
}

const byDatabase = new WeakMap<Sequelize, Models>();

/** The models on a database; made on first use. */
export function modelsOf(db: Sequelize): Models {
  const known = byDatabase.get(db);
  if (known !== undefined) return known;
  const models = defineModels(db);
  byDatabase.set(db, models);
  return models;
}

function defineModels(sequelize: Sequelize): Models {
  // One subclass a database: a Sequelize model class can be bound to one connection only.
  const Person = class extends PersonRow {};
  Person.init(
    { id: uuidKey, name: text, email: text, passwordHash: { type: text, allowNull: true }, administrator: DataTypes.BOOLEAN, demoJob: { type: text, allowNull: true } },
    { sequelize, tableName: 'person' },
  );
  const Project = class extends ProjectRow {};
  Project.init({ id: uuidKey, key: text, name: text, demo: DataTypes.BOOLEAN, revision: int }, { sequelize, tableName: 'project' });
  const Member = class extends MemberRow {};
  Member.init({ projectId: { type: DataTypes.UUID, primaryKey: true }, personId: { type: DataTypes.UUID, primaryKey: true }, role: text }, { sequelize, tableName: 'member' });
  const Artefact = class extends ArtefactRow {};
  Artefact.init(
    {
      id: bigKey, projectId: DataTypes.UUID, kind: text, number: int, parentId: DataTypes.BIGINT, position: int, state: text, head: int, meaningSince: int,
      agreedVersion: int, title: text, module: text, risk: text, priority: text, owner: text, tags: DataTypes.ARRAY(text), own: DataTypes.JSONB, facts: DataTypes.JSONB,
      authorId: DataTypes.UUID, updatedAt: when, deletedAt: when,
    },
    { sequelize, tableName: 'artefact' },
  );
  const Version = class extends VersionRow {};
  Version.init(
    {
      artefactId: { type: DataTypes.BIGINT, primaryKey: true }, version: { type: int, primaryKey: true }, content: DataTypes.JSONB, schema: int, hash: text,
      authorId: DataTypes.UUID, at: when, note: text, changeId: DataTypes.UUID,
    },
    { sequelize, tableName: 'artefact_version' },
  );
  const Draft = class extends DraftRow {};
  Draft.init(
    { artefactId: { type: DataTypes.BIGINT, primaryKey: true }, personId: { type: DataTypes.UUID, primaryKey: true }, base: int, content: DataTypes.JSONB, schema: int, at: when },
    { sequelize, tableName: 'draft' },
  );
  const Change = class extends ChangeRow {};
  Change.init(
    {
      id: uuidKey, projectId: DataTypes.UUID, revision: int, action: text, authorId: DataTypes.UUID, at: when, size: int, detail: text, note: text,
      commandId: DataTypes.UUID, undoneBy: DataTypes.UUID,
    },
    { sequelize, tableName: 'change' },
  );
  return { Person, Project, Member, Artefact, Version, Draft, Change };
}
