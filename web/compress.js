// Compresses the built files once, so that nothing is compressed at a request.
// The index stays as it is beside its copies; all else is kept compressed only.
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'

const text = /\.(js|css|svg|wasm|webmanifest)$/
const small = 512 // bytes that are not worth it

for (const entry of readdirSync('dist', { recursive: true, withFileTypes: true })) {
  const file = join(entry.parentPath, entry.name)
  if (!entry.isFile() || !text.test(entry.name)) continue
  const whole = readFileSync(file)
  if (whole.length < small) continue
  writeFileSync(`${file}.gz`, gzipSync(whole, { level: constants.Z_BEST_COMPRESSION }))
  writeFileSync(
    `${file}.br`,
    brotliCompressSync(whole, {
      params: {
        [constants.BROTLI_PARAM_QUALITY]: 9,
        [constants.BROTLI_PARAM_LGWIN]: 24,
        [constants.BROTLI_PARAM_SIZE_HINT]: whole.length,
      },
    }),
  )
  rmSync(file)
}
