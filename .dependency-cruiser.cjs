/** One way only: app → web, core, db · web → core (web/actions → db too) · db → core · cli → core. */
const no = (name, from, to, comment) => ({ name, severity: 'error', comment, from, to })
/** The floors of the core, lowest first; each may use those below it. */
const FLOORS = ['kit', 'solve', 'model', 'engines', 'stages', 'reckon']
const ours = '^(app|web|core|db|cli|worker|outside|scripts|test|bench)/'
module.exports = {
  forbidden: [
    no('could-not-resolve', {}, { couldNotResolve: true }, 'a wrong alias must not pass in silence'),
    no('no-circular', {}, { circular: true }, 'one way only'),
    no('core-is-pure', { path: '^core/' }, { path: ours, pathNot: '^core/' }, 'core knows nobody'),
    no('core-no-node', { path: '^core/' }, { dependencyTypes: ['core'] }, 'core runs anywhere'),
    no(
      'core-few-packages',
      { path: '^core/' },
      {
        path: 'node_modules/',
        pathNot: 'node_modules/(zod|culori|@types/culori|clipper-lib|delaunator|robust-predicates|@date-fns)/',
      },
      'pure packages only',
    ),
    ...FLOORS.map((floor, i) =>
      no(
        `floor-${floor}`,
        { path: `^core/${floor}/` },
        { path: '^core/', pathNot: `^core/(${FLOORS.slice(0, i + 1).join('|')})/` },
        `core/${floor} knows itself and the floors below it: ${FLOORS.slice(0, i).join(', ') || 'none'}`,
      ),
    ),
    no(
      'on-a-floor',
      { path: '^core/' },
      { path: '^core/', pathNot: `^core/(${FLOORS.join('|')})/` },
      'every file of core stands on a floor',
    ),
    no(
      'stages-apart',
      { path: '^core/stages/([^/]+)/' },
      { path: '^core/stages/', pathNot: '^core/stages/$1/' },
      'a stage never reaches into another stage',
    ),
    {
      ...no(
        'no-circles-of-folders',
        { path: '^core/[^/]+/' },
        { circular: true, path: '^core/[^/]+/' },
        'folders of core form no circle',
      ),
      scope: 'folder',
    },
    no('db-knows-core', { path: '^db/' }, { path: ours, pathNot: '^(db|core)/' }, 'db → core'),
    no('cli-knows-core', { path: '^cli/' }, { path: ours, pathNot: '^(cli|core)/' }, 'cli → core'),
    no('worker-knows-db', { path: '^worker/' }, { path: ours, pathNot: '^(worker|db|core)/' }, 'worker → db, core'),
    no('outside-knows-core', { path: '^outside/' }, { path: ours, pathNot: '^(outside|core)/' }, 'outside → core'),
    no('web-not-app', { path: '^web/' }, { path: '^(app|cli|worker|scripts|test|bench)/' }, 'app → web'),
    no(
      'only-actions-reach-outside',
      { path: '^web/', pathNot: '^web/actions/' },
      { path: '^outside/' },
      'things outside through actions',
    ),
    no('only-actions-reach-db', { path: '^web/', pathNot: '^web/actions/' }, { path: '^db/' }, 'one write path'),
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.depcruise.json' },
    doNotFollow: { path: 'node_modules' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.d.ts', '.js', '.mjs', '.json', '.scss', '.css'],
    },
  },
}
