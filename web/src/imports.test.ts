import { expect, test } from 'vitest';

const SOURCES = import.meta.glob<string>('./**/*.{ts,tsx}', {
  query: '?raw',
  import: 'default',
  eager: true,
});
const IMPORT = /(?:from |import\()'(\.[^']+)'/g;

const folderOf = (file: string) => file.slice(0, Math.max(0, file.lastIndexOf('/')));

/** The path of an import, from the root of the app. */
function pathOf(file: string, target: string): string {
  const parts = folderOf(file).split('/').filter(Boolean);
  for (const part of target.split('/')) {
    if (part === '..') parts.pop();
    else if (part !== '.') parts.push(part);
  }
  return parts.join('/');
}

/** The modules of the app with their imports, without tests. */
function modules(): Map<string, string[]> {
  const files = Object.entries(SOURCES)
    .map(([file, source]) => ({ file: file.slice(2), source }))
    .filter(({ file }) => !file.includes('.test.'));
  const byPath = new Map(files.map(({ file }) => [file.replace(/\.tsx?$/, ''), file]));
  return new Map(
    files.map(({ file, source }) => [
      file,
      [...source.matchAll(IMPORT)]
        .map(([, target]) => byPath.get(pathOf(file, target!)))
        .filter((target) => target !== undefined),
    ]),
  );
}

/** A cycle of a graph as a path, or null. */
function cycle(graph: Map<string, Iterable<string>>): string[] | null {
  const done = new Set<string>();
  const path: string[] = [];
  const visit = (node: string): string[] | null => {
    if (path.includes(node)) return [...path.slice(path.indexOf(node)), node];
    if (done.has(node)) return null;
    path.push(node);
    for (const next of graph.get(node) ?? []) {
      const found = visit(next);
      if (found) return found;
    }
    path.pop();
    done.add(node);
    return null;
  };
  for (const node of graph.keys()) {
    const found = visit(node);
    if (found) return found;
  }
  return null;
}

test('modules import each other without a cycle', () => {
  const graph = modules();
  expect(graph.size).toBeGreaterThan(80);
  expect(cycle(graph)).toBeNull();
});

test('folders import each other without a cycle', () => {
  const folders = new Map<string, Set<string>>();
  for (const [file, targets] of modules()) {
    const from = folderOf(file);
    const to = folders.get(from) ?? new Set();
    targets.map(folderOf).forEach((folder) => folder !== from && to.add(folder));
    folders.set(from, to);
  }
  expect(folders.size).toBeGreaterThan(10);
  expect(cycle(folders)).toBeNull();
});

test('a cycle is found', () => {
  expect(
    cycle(
      new Map([
        ['a', ['b']],
        ['b', ['c', 'a']],
        ['c', []],
      ]),
    ),
  ).toEqual(['a', 'b', 'a']);
});
