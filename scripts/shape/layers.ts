/** The rooms of the core from the ground up: a room uses only itself and those before it. */
const CORE_LAYERS: readonly string[] = [
  'units',
  'terms',
  'practice',
  'job',
  'document',
  'catalogue',
  'survey',
  'electrics',
  'power',
  'identify',
  'loads',
  'wire',
  'enclosure',
  'radio',
  'match',
  'remedies',
  'homeplan',
  'brief',
  'advice',
  'runsheet',
  'diagnose',
  'commission',
  'progress',
  'bench',
  'materials',
  'findings',
];

/** The rooms of the web, likewise. Views stand beside each other: none uses another. */
const WEB_LAYERS: readonly string[] = ['ui', 'data', 'drawings', 'parts', 'views', 'app'];

/** Rooms that one other room enters by one file only. */
const DOORS = [{ room: 'core/src/match/', from: 'core/src/homeplan/', door: 'ways-at.ts' }];

/** The room of a file below `root` (`core/src/`), or null for what stands beside the rooms (the index). */
function roomOf(file: string, root: string): string | null {
  if (!file.startsWith(root)) return null;
  const parts = file.slice(root.length).split('/');
  return parts.length > 1 ? (parts[0] ?? null) : null;
}

/** Why `from` may not import `to`, or null where it may. Both are paths from the repository's root. */
export function againstTheLayers(from: string, to: string): string | null {
  for (const { room, from: visitor, door } of DOORS)
    if (from.startsWith(visitor) && to.startsWith(room) && to !== room + door)
      return `${visitor.split('/')[2]} enters ${room.split('/')[2]} by another door than ${door}`;
  for (const [root, layers] of [
    ['core/src/', CORE_LAYERS],
    ['web/src/', WEB_LAYERS],
  ] as const) {
    const [user, used] = [roomOf(from, root), roomOf(to, root)];
    if (user === null || used === null || user === 'test-support') continue;
    if (!layers.includes(user)) return `${user} is no room of the list`;
    if (layers.indexOf(used) > layers.indexOf(user)) return `${user} uses ${used}, which stands above it`;
    if (user === 'views' && sectionOf(from) !== sectionOf(to) && used === 'views')
      return `view ${sectionOf(from)} uses view ${sectionOf(to)}`;
  }
  return null;
}

function sectionOf(file: string): string {
  return file.split('/')[3] ?? '';
}
