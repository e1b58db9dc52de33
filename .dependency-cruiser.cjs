/** Dependencies point one way: web → contract → core; server → contract, core. Each folder has one door. */
const CHAPTER = '^(core|server|web)/src/([^/]+)/';

/** The floors of the interface: chapters are pages and stand on pieces that several of them show; pieces stand on the house. */
const HOUSE = '(api|focus|frame|look|worker)';
const PIECES = '(artefacts|askReview|attachments|changes|charts|configurations|covers|data|drawing|editor|fields|files|following|grid|listing|liveCoverage|models|outline|overview|phrases|readLinks|remarks|reuse|sendByMail|steps|suiteMembers|takeBaseline|text|versions)';
const CHAPTERS = '(baselines|basis|cases|conditions|counts|coverage|exchange|handOffs|inbox|journal|lists|matrix|people|projects|questions|reading|replacing|report|reuseMap|reviews|scenarios|shared|shown|specification|suites|trend)';

module.exports = {
  forbidden: [
    { name: 'core-imports-nothing-of-ours', severity: 'error', from: { path: '^core/src' }, to: { path: '^(contract|server|web|cli)/' } },
    { name: 'cli-imports-contract-only', severity: 'error', from: { path: '^cli/src' }, to: { path: '^(core|server|web)/' } },
    { name: 'core-without-io', severity: 'error', from: { path: '^core/src', pathNot: '\\.test\\.ts$' }, to: { dependencyTypes: ['core'] } },
    { name: 'core-only-pure-libraries', severity: 'error', from: { path: '^core/src', pathNot: '\\.test\\.ts$|/test(Graphs|Changes)\\.ts$' }, to: { path: 'node_modules', pathNot: 'node_modules/(diff|csv-parse|csv-stringify|fflate|saxes|read-excel-file|write-excel-file|js-yaml|mdast-util-[^/]+|hast-util-[^/]+|micromark-extension-gfm|re2js|string-width|highs|@cucumber/[^/]+|@types/(mdast|hast))/' } },
    { name: 'contract-imports-core-only', severity: 'error', from: { path: '^contract/src' }, to: { path: '^(server|web)/' } },
    { name: 'web-and-server-apart', severity: 'error', from: { path: '^web/src' }, to: { path: '^server/' } },
    { name: 'server-and-web-apart', severity: 'error', from: { path: '^server/src' }, to: { path: '^web/' } },
    {
      name: 'one-door-a-folder',
      severity: 'error',
      comment: 'Another folder is entered by its index.ts.',
      from: { path: CHAPTER },
      to: { path: '^$1/src/([^/]+)/.+', pathNot: ['^$1/src/$2/', '/index\\.ts$', '^web/src/look/theme\\.css$'] },
    },
    { name: 'a-chapter-imports-no-other', severity: 'error', from: { path: `^web/src/${CHAPTERS}/`, pathNot: '\\.test\\.tsx?$' }, to: { path: `^web/src/${CHAPTERS}/`, pathNot: '^web/src/$1/' } },
    { name: 'pieces-stand-on-the-house', severity: 'error', from: { path: `^web/src/${PIECES}/` }, to: { path: `^web/src/${CHAPTERS}/` } },
    { name: 'the-house-stands-by-itself', severity: 'error', from: { path: `^web/src/${HOUSE}/` }, to: { path: `^web/src/(${PIECES}|${CHAPTERS})/` } },
    { name: 'every-folder-has-its-floor', severity: 'error', from: {}, to: { path: '^web/src/[^/]+/', pathNot: `^web/src/(${HOUSE}|${PIECES}|${CHAPTERS})/` } },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    { name: 'no-orphans', severity: 'error', from: { orphan: true, pathNot: ['\\.d\\.ts$', 'server/src/(coverage/keeper|exchange/importer|http/heavyLane|trend/trend)\\.worker\\.mjs$'] }, to: {} },
  ],
  options: { doNotFollow: { path: 'node_modules' }, tsPreCompilationDeps: true, enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types', 'default'] }, moduleSystems: ['es6'] },
};
