// What the browser fetches before anybody is signed in: at most 150 kB of script, compressed.
import { readFileSync } from "node:fs";
import { gzipSync } from "node:zlib";

const MOST = 150_000;
const page = readFileSync("dist/index.html", "utf8");
const seen = new Map();

function follow(file) {
  if (seen.has(file)) return;
  const script = readFileSync(`dist/assets/${file}`, "utf8");
  seen.set(file, gzipSync(script).length);
  for (const [, next] of script.matchAll(/(?:from|import)"\.\/([^"]+\.js)"/g)) follow(next);
}

for (const [, file] of page.matchAll(/assets\/([^"]+\.js)"/g)) follow(file);
const total = [...seen.values()].reduce((sum, size) => sum + size, 0);
if (!seen.size || total > MOST) {
  console.error(`The first load is ${total} bytes of script, compressed; at most ${MOST} are right.`, seen);
  process.exit(1);
}
