/** Run after the build: beside each file for the browser, the same as small as it gets, so that no request compresses it. */
import { readFileSync, readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";
import { projectDir } from "./process.mjs";

const assets = join(projectDir, "build/client/assets");
/** Beyond it the best of brotli takes longer than the whole build: the solver of the plan, 3.5 MB. */
const LARGE = 1_000_000;

for (const name of readdirSync(assets)) {
  if (!/\.(js|css|svg|json|wasm)$/.test(name)) continue;
  const file = readFileSync(join(assets, name));
  const quality = file.length > LARGE ? 9 : constants.BROTLI_MAX_QUALITY;
  const smaller = {
    br: brotliCompressSync(file, { params: { [constants.BROTLI_PARAM_QUALITY]: quality } }),
    gz: gzipSync(file, { level: 9 }),
  };
  for (const [ending, content] of Object.entries(smaller))
    if (content.length < file.length) writeFileSync(join(assets, `${name}.${ending}`), content);
}
