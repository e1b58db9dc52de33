/** The types of a ReqIF document (OMG ReqIF 1.2, clause 10), kept so that an export can write the same again. */
export interface ReqifTypes {
  readonly header: { readonly id: string; readonly title: string; readonly comment: string };
  readonly datatypes: readonly ReqifDatatype[];
  readonly specTypes: readonly ReqifSpecType[];
  readonly specifications: readonly ReqifSpecification[];
}

export const DATATYPE_KINDS = ['STRING', 'INTEGER', 'REAL', 'BOOLEAN', 'DATE', 'ENUMERATION', 'XHTML'] as const;
export type DatatypeKind = (typeof DATATYPE_KINDS)[number];

export interface ReqifDatatype {
  readonly id: string;
  readonly name: string;
  readonly kind: DatatypeKind;
  /** MAX-LENGTH, MIN, MAX, ACCURACY as written. */
  readonly limits: Readonly<Record<string, string>>;
  /** Of an enumeration. */
  readonly values: readonly { readonly id: string; readonly name: string; readonly key: string; readonly other: string }[];
}

export const SPEC_TYPE_KINDS = ['SPEC-OBJECT-TYPE', 'SPECIFICATION-TYPE', 'SPEC-RELATION-TYPE', 'RELATION-GROUP-TYPE'] as const;
export type SpecTypeKind = (typeof SPEC_TYPE_KINDS)[number];

export interface ReqifSpecType {
  readonly id: string;
  readonly name: string;
  readonly kind: SpecTypeKind;
  readonly attributes: readonly ReqifAttribute[];
}

export interface ReqifAttribute {
  readonly id: string;
  readonly name: string;
  readonly kind: DatatypeKind;
  readonly datatype: string;
  readonly multiValued: boolean;
}

export interface ReqifSpecification {
  readonly id: string;
  readonly name: string;
  readonly type: string;
}

/** What is kept of one object besides its fields: which type it has, and where it stands. */
export interface ReqifObject {
  readonly type: string;
  readonly hierarchyId: string;
  readonly specification: string;
}
