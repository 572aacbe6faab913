// How much comes over the line before a page can be used, gzipped: its page, its scripts with all they import, and their
// styles. Fonts come beside it and hold nothing up. Fails where it is more than allowed.
import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';

const allowed = 180_000;
const dist = new URL('../dist/', import.meta.url);
const manifest = JSON.parse(readFileSync(new URL('.vite/manifest.json', dist), 'utf8'));

const pages = {
  'the jobs': ['index.html', 'src/screens/jobs/JobsPage.tsx'],
  'a job': ['index.html', 'src/screens/job/JobRoute.tsx', 'src/screens/job/JobPage.tsx'],
  'the kit': ['index.html', 'src/screens/kit/KitPage.tsx'],
  'a setup': [
    'index.html',
    'src/screens/job/JobRoute.tsx',
    'src/screens/workbench/Workbench.tsx',
    'src/screens/blend/BlendStep.tsx',
  ],
};

const weighed = (file) => gzipSync(readFileSync(new URL(file, dist)), { level: 9 }).length;

function files(names) {
  const found = new Set(['index.html']);
  const chunks = new Set();
  const add = (name) => {
    const chunk = manifest[name];
    if (!chunk) throw new Error(`the build has no ${name}`);
    if (chunks.has(name)) return;
    chunks.add(name);
    [chunk.file, ...(chunk.css ?? [])].forEach((file) => found.add(file));
    (chunk.imports ?? []).forEach(add);
  };
  names.forEach(add);
  return [...found];
}

let heaviest = 0;
for (const [page, names] of Object.entries(pages)) {
  const weight = files(names).reduce((sum, file) => sum + weighed(file), 0);
  console.log(`First load of ${page}: ${(weight / 1000).toFixed(2)} kB gzipped`);
  heaviest = Math.max(heaviest, weight);
}
if (heaviest > allowed) {
  console.error(`That is more than the ${allowed / 1000} kB that are allowed.`);
  process.exit(1);
}
