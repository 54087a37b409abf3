// Begins another language, or brings one up to date: writes every text there is, English to English until somebody has said it otherwise, into
// languages/<tag>.json of the client and Languages/<tag>.json of the server. What is translated already stays; what no code says any more goes.
//   npm run messages -- nl
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

const root = new URL('../../', import.meta.url).pathname
const read = (file) => readFileSync(file, 'utf8')
const under = (folder, name) =>
  readdirSync(`${root}${folder}`, { recursive: true })
    .map((file) => `${root}${folder}/${file}`)
    .filter((file) => name.test(file) && !/\/(obj|bin)\/|\.test\.ts$/.test(file))

/** Keys of `t('…')` and `$t('…')`. */
export function textsOfClient(code) {
  const calls = code.matchAll(/(?<![\w.])\$?t\(\s*(?:'((?:[^'\\]|\\.)*)'|"((?:[^"\\]|\\.)*)"|`([^`\\]*)`)/g)
  return [...calls].map(([, single, double, tick]) => (single ?? double ?? tick).replace(/\\(.)/g, '$1'))
}

/** Keys of `Phrase("…")` and `Phrase($"… {name} …")`, where what is filled in is numbered; and the words of our own that are filled in. */
export function textsOfServer(code) {
  const found = []
  for (const call of code.matchAll(/\b(?:Phrase|Later)\((?=\$?")/g))
    found.push(...literal(code, call.index + call[0].length).texts)
  for (const [, one, many] of code.matchAll(/\b(?:Count|More)\([^"\n]*?, "([^"]+)", "([^"]+)"\)/g))
    found.push(one, many)
  return found
}

function literal(code, at) {
  const filled = code[at] === '$'
  let i = at + (filled ? 2 : 1)
  let template = ''
  let holes = 0
  const words = []
  for (; code[i] !== '"'; i++) {
    if (code[i] === '\\') template += code[++i] === 'n' ? '\n' : code[i]
    else if (filled && code[i] === '{') {
      template += `{${holes++}}`
      for (let depth = 1; depth > 0;) {
        i++
        if (code[i] === '"') {
          const inner = literal(code, code[i - 1] === '$' ? i - 1 : i)
          if (/^\p{L}[\p{L} ]*$/u.test(inner.texts[0])) words.push(...inner.texts)
          i = inner.end
        } else if (code[i] === '{') depth++
        else if (code[i] === '}') depth--
      }
    } else template += code[i]
  }
  return { texts: [template.trim(), ...words], end: i }
}

function update(folder, tag, files, textsOf) {
  const path = `${root}${folder}/${tag}.json`
  const had = existsSync(path) ? JSON.parse(read(path)) : {}
  const texts = [...new Set(files.flatMap((file) => textsOf(read(file))))].filter(Boolean).sort()
  writeFileSync(
    path,
    `${JSON.stringify(Object.fromEntries(texts.map((text) => [text, had[text] ?? text])), null, 2)}\n`,
  )
  console.log(
    `${path}: ${texts.length} texts, ${texts.filter((text) => had[text] && had[text] !== text).length} of them translated`,
  )
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const tag = process.argv[2]
  if (!/^[a-z]{2,3}(-[A-Za-z0-9]+)*$/.test(tag ?? ''))
    throw new Error('Which language? Give its tag, such as nl or pt-BR.')
  update('src/client/src/app/language/languages', tag, under('src/client/src', /\.(vue|ts)$/), textsOfClient)
  update(
    'src/Fobble.Server/Languages',
    tag,
    ['Core', 'Data', 'Formats', 'Server'].flatMap((part) => under(`src/Fobble.${part}`, /\.cs$/)),
    textsOfServer,
  )
}
