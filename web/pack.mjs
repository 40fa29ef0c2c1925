// Packs what was built, once: each file that packs well gets a .br and a .gz beside it, which the server gives out as they are.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

const PACKED = /\.(html|js|css|svg|json)$/;

function files(folder) {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? files(path) : [path];
  });
}

for (const path of files('dist').filter((one) => PACKED.test(one))) {
  const plain = readFileSync(path);
  const br = brotliCompressSync(plain, {
    params: { [constants.BROTLI_PARAM_QUALITY]: 11, [constants.BROTLI_PARAM_SIZE_HINT]: plain.length },
  });
  const gz = gzipSync(plain, { level: 9 });
  if (br.length < plain.length) writeFileSync(`${path}.br`, br);
  if (gz.length < plain.length) writeFileSync(`${path}.gz`, gz);
}
