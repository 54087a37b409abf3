// Makes NameFonts.zip again: Noto Sans (SIL Open Font License) in the scripts that names come in, as cut for the web by the @fontsource packages, in the order in
// which a letter is looked for. `letters.txt` says which letters each file is for. Run with node; asks the package registry and nothing else.
import { execFileSync } from 'node:child_process'
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const version = '5.3.0'
const scripts = [
  'arabic', 'hebrew', 'devanagari', 'bengali', 'gurmukhi', 'gujarati', 'tamil', 'telugu', 'kannada', 'malayalam',
  'sinhala', 'thai', 'lao', 'khmer', 'myanmar', 'ethiopic', 'georgian', 'armenian',
] // prettier-ignore
const packages = [
  { name: 'noto-sans', keep: /^(greek|greek-ext|cyrillic|cyrillic-ext|vietnamese|latin-ext)$/ },
  ...scripts.map((script) => ({ name: `noto-sans-${script}`, keep: new RegExp(`^${script}$`) })),
  // Cut by how often letters are met, about a hundred in each file.
  ...['jp', 'sc', 'kr'].map((name) => ({ name: `noto-sans-${name}`, keep: /^\[?\d+\]?$/ })),
]

const work = mkdtempSync(join(tmpdir(), 'names-'))
const index = []
for (const { name, keep } of packages) {
  execFileSync('npm', ['pack', `@fontsource/${name}@${version}`, '--silent'], { cwd: work })
  execFileSync('tar', ['xzf', `fontsource-${name}-${version}.tgz`], { cwd: work })
  const css = readFileSync(join(work, 'package/400.css'), 'utf8')
  for (const [, face] of css.matchAll(/@font-face \{([^}]*)\}/g)) {
    const file = /files\/([\w[\]-]+)\.woff\)/.exec(face)[1]
    const part = file.slice(name.length + 1, -'-400-normal'.length)
    if (!keep.test(part)) continue
    const short = `${name.replace(/^noto-sans-?/, '')}-${part}`
      .replace(/^-/, '')
      .replace(/^(\w+)-\1$/, '$1')
      .replaceAll(/[[\]]/g, '')
    cpSync(join(work, 'package/files', `${file}.woff`), join(work, `${short}.woff`))
    index.push(`${short}\t${/unicode-range: ([^;]*);/.exec(face)[1].replaceAll(' ', '')}`)
  }
  cpSync(join(work, 'package/LICENSE'), join(work, 'LICENSE.txt'))
  rmSync(join(work, 'package'), { recursive: true })
}

writeFileSync(join(work, 'letters.txt'), `${index.join('\n')}\n`)
const out = join(import.meta.dirname, 'NameFonts.zip')
rmSync(out, { force: true })
// Without dates and without packing twice: the same packages give the same file.
const files = ['LICENSE.txt', 'letters.txt', ...index.map((line) => `${line.split('\t')[0]}.woff`)]
execFileSync('touch', ['-d', '2026-01-01T00:00:00Z', ...files], { cwd: work })
execFileSync('zip', ['-q', '-X', '-n', '.woff', out, ...files], { cwd: work, env: { ...process.env, TZ: 'UTC' } })
rmSync(work, { recursive: true })
