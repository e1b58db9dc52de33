/** What each page is for, in four sentences, by its word in the address. */
export const PAGE_HELP: Readonly<Record<string, readonly [string, string, string, string]>> = {
  basis: [
    'The Basis holds the requirements of the system under test as an outline.',
    'Open one at the left to read its text critically: weak wording is underlined, and words can be marked to make a condition or to ask a question.',
    'Import brings requirements from a workbook, a DOCX, CSV, Markdown or ReqIF file; the same source again updates them instead of doubling.',
    'Squares show what is covered; a dash says that nobody has analysed the requirement yet.',
  ],
  conditions: [
    'A condition is something of a requirement that can be tested: it hangs on words of the text, or on the whole of it.',
    'Its model says how it is to be exercised: value ranges, a decision table, state transitions, combinations, or plain.',
    'From the model follow its coverage items, each with what shows it, and why.',
    'Write cases proposes the rows and paths that are missing; you say what is expected.',
  ],
  cases: [
    'A case is one page: its purpose, steps with what is expected, data, and the conditions it covers.',
    'Enter makes the next step, Tab leads to what is expected, < puts in a parameter, / puts in shared steps or a call.',
    'Each row of the data runs once: choose a row, and its values stand in the steps.',
    'The margin says what the case shows and what it only claims to cover, with the reason.',
  ],
  scenarios: [
    'A feature is a file of scenarios in Gherkin; the scenarios stand below it at the left, each with a number it keeps.',
    'Write it as text: keywords in the language of the file, problems marked where they stand, tables aligned; or read it as pages.',
    'Tags choose scenarios: @smoke and not @slow.',
    'Files come in from a folder and go out as they were; what nobody changed stays the same, byte for byte.',
  ],
  suites: [
    'A suite is an ordered choice of cases and scenarios for a purpose: a smoke test, a release, a module after a change.',
    'Members are picked by hand, or a rule keeps a part: whatever comes to match it is in.',
    'Squares are the items a member shows, pale where others of the suite show all of them; the margin says what the suite shows, what it misses, and what would show it, and puts it in the order in which most risk is shown soonest.',
    'Alt and the arrows move a line, left and right set a part in and out, Delete takes a line out; members follow the latest, what is agreed, or stay with a version.',
  ],
  'hand-offs': [
    'A hand-off gives a suite or a baseline to those who execute: exact versions, with values in place.',
    'Before it is made, what is doubtful stands at each case: no value, not agreed, unclear; leave it out, mend it, or hand it off as it is.',
    'The work is given out so that all have about as much, by modules, or to the owners; whoever is chosen at a line keeps it.',
    'Each part is saved as a workbook to fill in, a page to tick without a network, or for a tool; later edits touch nothing of it.',
  ],
  mails: [
    'Here stand the mails you sent from this project, the latest first.',
    'What waits is tried again by itself, for three days; the mail server’s own words say why.',
    'A mail that was given up is sent again by a click, or taken back.',
    'More, Send by mail on a page sends a case, a question or anything else; the button above a table sends the list.',
  ],
  phrasebook: [
    'A phrase is the text of a step with its values taken out: the clerk enters {int}.',
    'Phrases that say nearly the same stand together; one wording is chosen for all, and every use is shown before it is rewritten.',
    'An agreed phrase is offered first while one writes. Words that are values too (a season, a town) are told in the settings.',
    'Open a phrase to see where it is used. Shared steps can say it in full: whoever reads a scenario through is told what to do.',
  ],
  'scenarios-twice': [
    'Scenarios that say the same but for values stand together; those of one feature can be one outline, a row for each.',
    'Before it is made you see its name, its columns and what the file would say.',
    'Pairs nearly the same are compared side by side: what only one says is marked, and values that differ.',
    'What all scenarios of a feature begin with is offered as their background, beside the feature.',
  ],
  shared: [
    'Shared steps stand once and are used in many cases; a data set is a table of rows that many cases take.',
    'A change reaches every user that follows the latest version; those that are pinned keep theirs until they are moved, those that follow what is agreed until it is agreed.',
    'Before a save you see how many cases and instances it reaches.',
    'Alike steps finds runs that stand in several places and could be taken out.',
  ],
  list: [
    'All artefacts of a kind stand here as a table: columns are chosen, ordered and sized, and stay as you leave them.',
    'The query line takes words, fields as state:draft or minutes>10, - for not, or, and brackets; it offers what can be written.',
    'A query is kept under a name, for yourself or for the project, with how many match it now.',
    'Cells are changed where they stand with the keys of a spreadsheet: arrows, F2 or a letter, Delete, Ctrl C, V and D. Space selects, Ctrl A all that match; Change sets a field of all of them.',
  ],
  replace: [
    'Words are looked for in the texts of many artefacts: of a selection, of what a query finds, or everywhere.',
    'Every place is shown with its change; untick what is to stay as it is.',
    'Names of parameters and addresses stay as they are unless you ask; a pattern is a regular expression in the syntax of RE2.',
    'All is one entry of the journal. What somebody changed in between is left and named.',
  ],
  coverage: [
    'Design coverage says how much of what has to be shown is shown, before anything is executed.',
    'An item is shown when the values, the path or the steps of an instance demonstrate it and an expected result could tell whether it passes; otherwise it is only linked.',
    'Beside the percentage stands how many requirements nobody has analysed yet: they count in no percentage.',
    'Every number opens the list behind it.',
  ],
  questions: [
    'A question holds up what it is about: those items wait until it is answered.',
    'Write the answer in the words it was said, and say who gave it.',
    'An answer can be written into the requirement, where it makes a new version.',
    'The agenda gathers the questions to ask one person in one go.',
  ],
  agenda: ['The agenda gathers open questions for a talk, by whom they are asked.', 'Tick what was answered and write down what was said.', 'Answers count from the moment they are given.', 'It prints as a list with room to write.'],
  inbox: [
    'What reaches you: remarks that name you, questions and reviews that ask you, changes of what you follow, suspect links in what you own.',
    'You follow what you own, wrote in or are asked. Any page lets you follow it, or not: More, below its title.',
    'Arrows go from line to line; Enter opens one and reads it, Space marks it as read or not, Shift Space keeps it.',
    'What changes again before you have read of it stands here once, with all that you have not seen.',
  ],
  remarks: [
    'People say things beside artefacts: at a step, on words, or on all of it. Alt R says something where you are.',
    'What names you with @, or answers you, waits for you here until you answer or it is settled.',
    'A remark stays with its words and its step, wherever these go.',
    'Whoever says it otherwise or takes it back leaves a trace.',
  ],
  baselines: [
    'A baseline freezes exact versions of everything, or of a requirement with all that hangs on it, with the settings and the coverage of that moment. Nobody can change it.',
    'What changed since, or between two, is told artefact by artefact, with its difference. What you select, or everything, comes back as new versions; it is told before what that changes, and the journal can undo it.',
    'Open the project as it was to read every chapter as of then, below an address of its own.',
    'The seal is a SHA-256 over all that it holds. Checking it reads everything again: a change behind everybody’s back is noticed.',
  ],
  reviews: [
    'A review asks people to agree to exact versions. It is asked for from an artefact, by its state, or from a selection.',
    'Who is asked sees what changed since it was agreed, or since they agreed themselves; the first time all of it.',
    'An objection says why, and makes it a draft again; once mended it is asked for again.',
    'What is saved while the review goes on is asked for anew. The project’s settings say how many must agree.',
  ],
  suspect: [
    'A link is suspect when what it leads to changed in meaning after the link was made.',
    'At the right stands what changed.',
    'Still right says that the link holds with the new version, and is saved at once.',
    'Until then, what is shown through the link does not count.',
  ],
  glossary: ['The glossary explains the terms of the project.', 'A term and its other forms are dotted under wherever they stand.', 'Abbreviations and names that it does not explain count as weak wording.', 'A definition can be changed by anybody who may edit.'],
  'import-features': [
    'Features come from a folder, from files that end in .feature, or from a zip of them.',
    'They are shown with what they would do: added, changed, renamed, as they are; problems by file and line.',
    'A file that came in before changes its feature: what only the file changed comes, what was changed here stays; where both did, you choose.',
    'Everything is one entry of the journal and can be undone.',
  ],
  'import-cases': [
    'Cases come from a workbook, a CSV or a Markdown file: a row a step, or a row a case with its steps in a cell.',
    'The columns are guessed and can be corrected; how they were matched is remembered for the source.',
    'Names between angle brackets become parameters; requirements are linked by id or title.',
    'The same source again updates what came from it. An import is one entry of the journal.',
  ],
  'import-design': [
    'A design file carries a part of another project with all that it uses: requirements, conditions, cases, shared steps, data sets.',
    'It is saved there from a list: select what is to come along, then Carry to another project.',
    'What came before is known again: it is changed where the file changed it, and never there twice.',
    'An import is one entry of the journal and can be undone as one.',
  ],
  import: [
    'A file is read, its columns are matched, and you see what would change before anything does.',
    'The row of names and the sheet can be chosen; rows with one text become headings or modules.',
    'Where both the file and the project changed a value, you choose, or write a third.',
    'An import is one entry of the journal and can be undone as one.',
  ],
  read: ['The read-through shows a case or a scenario as somebody executes it: all shared steps opened, all values in place.', 'Arrows go from instance to instance, n and p from case to case, or through the scenarios of a feature.', 's shows one step at a time.', 'It prints as it stands.'],
  reuse: ['The graph shows what uses what: users at the left of what they use.', 'Choose one to see how far a change of it would reach.', 'Pinned uses are dashed: a change stops there.', 'Of large projects a part is drawn; narrow it down by words.'],
  matrix: [
    'The matrix says which cases, scenarios or suites show which requirements or conditions; a square looks like the best that is in it.',
    'Arrows move through it, with Ctrl to the next square that holds something, Home and End to the ends; Enter opens, and folds a module.',
    'On a name, at the left or above, the foot of the page sorts and filters the other side by it; red names meet nothing in the whole project.',
    'Export XLSX writes what is in view; on paper each row says what it meets.',
  ],
  trend: [
    'The curve says what the project came to at the end of each day, counted from the journal, also of days before this page was there.',
    'Choose what is shown, and of what: the whole, each risk, module, technique or suite, or one requirement.',
    'Click a point or a day to see which requirements made the curve bend, and what was done; from there you can look back at the project of then.',
    'B-1, B-2 and so on are baselines. A share is of the items to be shown, rounded down.',
  ],
  counts: [
    'Counts say how many there are, or what their minutes, items or own numbers come to, by any two things: module and risk, owner and state, fields of your own.',
    'Each figure opens to those it counts; where a query finds just them, to their list.',
    'Keep puts the table or the bars on the page of counts, for yourself or for everybody; there it always shows what is now.',
    'Arrows move through the table. What has several values stands in several places; “All” counts each once.',
  ],
  report: [
    'The report tells those who decide where the design stands: what is shown, the worst gaps, what waits for whom, how it came about, and what changed since a baseline.',
    'Choose the baseline it is held against, and write above it what matters most.',
    'Print puts it on A4, or into a PDF; it is saved as one HTML file, as Markdown, or as a workbook with all lines of its tables.',
    'It always says what is now; what it names is a click away.',
  ],
  specification: [
    'The specification is all that is designed, or a module or suite of it, as one document: requirements, conditions with their drawings and items, cases, features, shared steps, data.',
    'Lay out the pages puts it on A4 with page numbers, also in its contents and wherever one part names another.',
    'Print then prints exactly these pages, or saves them as PDF.',
    'Looked at from a baseline it is the document of then.',
  ],
  alike: ['Here stand runs of steps that occur in several cases, and cases nearly like each other.', 'A run can be taken out into shared steps in all places at once.', 'Before that you see the places and what differs.', 'The journal can undo it.'],
  settings: ['The settings hold what is the same for the whole project: risk scale, depths, constants, configurations, the tracker.', 'Hints and rules of weak wording can be switched off here.', 'Leads change scales and the tracker, analysts the rest.', 'Each save is an entry of the journal.'],
  journal: ['The journal lists what was done in the project, newest first.', 'Every entry can be undone by itself; what came after stays.', 'Compare shows what an entry changed; look back opens the whole project as it was right after it.', 'Nothing is ever taken out of it.'],
  people: ['These people may come into the project, each with a role.', 'Readers read, analysts design, leads change scales and may make projects, administrators look after people.', 'Somebody new gets an account or a link to set a password.', 'What was done to people stands in a journal of its own.'],
  versions: ['Every save is a version, with who made it and why.', 'Two versions can be compared word by word.', 'An earlier one can be restored: it becomes the newest.', 'Nothing is lost by that.'],
};

/** A technique with a small worked example and where it is described. */
export interface TechniqueHelp {
  readonly name: string;
  readonly what: string;
  readonly example: string;
  readonly source: string;
}

export const TECHNIQUE_HELP: readonly TechniqueHelp[] = [
  {
    name: 'Partitions',
    what: 'Values that are treated alike form a partition; one value of each is enough.',
    example: 'A reading from 0 to 99 999 is stored: valid 4 182; below −1 and above 100 000 refused; letters, empty, a fraction. Six partitions, six values.',
    source: 'ISO/IEC/IEEE 29119-4, 5.2.1 Equivalence partitioning',
  },
  {
    name: 'Boundary values',
    what: 'Mistakes sit at the edges: the last value of one partition and the first of the next.',
    example: 'For 0 to 99 999, two values at each boundary: −1 and 0, 99 999 and 100 000. With three values, 1 and 99 998 as well.',
    source: 'ISO/IEC/IEEE 29119-4, 5.2.3 Boundary value analysis',
  },
  {
    name: 'Decision tables',
    what: 'Rules say which actions follow from which combination of conditions; each rule that can occur is an item.',
    example: 'Arrears yes or no, plan agreed yes or no: no arrears, 30 % discount; arrears with a plan, 10 %; arrears without, none. Three rules, three rows.',
    source: 'ISO/IEC/IEEE 29119-4, 5.2.6 Decision table testing',
  },
  {
    name: 'State transitions',
    what: 'A thing is in one state at a time, and events lead from state to state; transitions, runs of them, and refused events are items.',
    example: 'Supply is Active; an overdue bill leads to Noticed, a payment back to Active. “Close” in Noticed is refused. Two transitions and one refused event, two paths.',
    source: 'ISO/IEC/IEEE 29119-4, 5.2.8 State transition testing',
  },
  {
    name: 'Combinations',
    what: 'Several factors with values each: instead of all combinations, every pair of values stands in some row.',
    example: 'Channel letter, e-mail, SMS; language two; urgent yes or no: twelve combinations in all, six rows hold every pair.',
    source: 'ISO/IEC/IEEE 29119-4, 5.2.5 Combinatorial test design techniques',
  },
  {
    name: 'Plain conditions',
    what: 'Something that either holds or not, without values to choose.',
    example: '“An auditor changes nothing”: one item, shown by a step whose expected result says how one sees it.',
    source: 'Coverage as items covered ÷ items: ISO/IEC/IEEE 29119-4, 6.1',
  },
];
