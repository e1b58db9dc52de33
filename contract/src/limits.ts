/** What a field, a list and a request may hold. A text beyond its limit is refused whole, never cut. */
export const LIMITS = {
  title: 300,
  name: 200,
  line: 20_000,
  text: 200_000,
  cell: 20_000,
  steps: 2_000,
  /** Files of a step, and of an artefact as a whole. */
  attachments: 20,
  parameters: 200,
  rows: 100_000,
  /** Minutes that something takes. */
  minutes: 100_000,
  /** Parts of a feature, and lines of one of them. */
  featureParts: 20_000,
  featureLines: 200_000,
  /** Parts and members of a suite picked by hand, and members that one is measured with. */
  suiteEntries: 20_000,
  fields: 20,
  /** Conditions and actions of a decision table, each. */
  tableLines: 60,
  tableRules: 10_000,
  states: 500,
  events: 500,
  transitions: 5_000,
  factors: 120,
  factorValues: 200,
  constraints: 200,
  /** What parameters of a case can carry of one condition. */
  carried: 120,
  intervals: 200,
  choices: 500,
  links: 500,
  attributes: 300,
  dismissals: 1_000,
  observations: 500,
  address: 2_000,
  terms: 2_000,
  /** Characters of what a term means, and other forms of it. */
  definition: 5_000,
  forms: 50,
  constants: 500,
  configurations: 100,
  /** Names of modules that have a place in the order. */
  modules: 1_000,
  /** People who keep one of them. */
  keepers: 200,
  priorities: 12,
  agreedPhrases: 5_000,
  valueKinds: 50,
  /** Phrases whose detail one set of shared steps is. */
  phrasesDetailed: 200,
  /** Of one person. */
  accessTokens: 50,
  /** Fields of a project's own. */
  ownFields: 200,
  leftOut: 5_000,
  depths: 20,
  /** Artefacts made or changed by one command, each. */
  written: 1_000,
  /** Artefacts that one command does the same with. */
  many: 20_000,
  /** The most that a project may allow of coverage items in one condition. */
  items: 100_000,
  tags: 50,
  /** Of one mail, and mails that a person may send in a day. */
  recipients: 50,
  mailsADay: 300,
  note: 2_000,
  password: 200,
  /** The greatest number of a version, a revision or a place. */
  number: 999_999_999,
  /** Bytes of a request's body, where its operation says nothing else. */
  request: 256 * 1024,
  /** Bytes of a body with lists of what is to be done. */
  lists: 16 * 1024 * 1024,
  /** Bytes of a body with contents of artefacts. */
  body: 32 * 1024 * 1024,
  /** Bytes of an attached file. */
  attachment: 25 * 1024 * 1024,
  /** Bytes of all attached files of a project. */
  projectAttachments: 4 * 1024 * 1024 * 1024,
  /** Bytes of a person's files that wait to be imported. */
  waitingFiles: 200 * 1024 * 1024,
  /** Bytes of a folder of a baseline, packed and unpacked, and files in it. */
  folder: 128 * 1024 * 1024,
  unpackedFolder: 768 * 1024 * 1024,
  folderFiles: 65_000,
  /** Bytes of an uploaded file. */
  file: 25 * 1024 * 1024,
} as const;

/** Characters. */
export const SHORTEST_PASSWORD = 10;
