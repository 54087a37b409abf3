import { shallowRef, type App } from 'vue'
import { filled, lengthened, spelled, type Texts } from './texts'

/**
 * Every text of the client is said through `t`, with its English as its key. Another language is a file beside the others in languages/: English to the other, what is not in it stays English.
 * It is the one the server speaks, which has a file of the same name. `npm run messages` lists what there is to translate.
 *
 * Of a message format it has names in braces and no more. The libraries for it, at their smallest, weigh a quarter of what the clipboard may load.
 */
const files = import.meta.glob<Texts>('./languages/*.json', { import: 'default' })

/** No language: every text bracketed and longer, to see what has not passed here and what is cut off (CLDR's tag for that). */
const TRIAL = 'en-XA'
const KEPT = 'fobble-language'
const spoken = shallowRef<{ tag: string; texts: Texts }>({ tag: 'en-GB', texts: {} })

/** The language spoken now, as a BCP 47 tag. */
export const spokenNow = () => spoken.value.tag

/** The text in the language spoken now, with what belongs into its places: `t('Week of {day}', { day })`. */
export function t(text: string, values: Record<string, unknown> = {}) {
  const { tag, texts } = spoken.value
  const said = tag === TRIAL ? lengthened(text) : (texts[text] ?? (tag.startsWith('en-') ? spelled(texts, text) : text))
  return filled(said, values)
}

/** From now on in this language; kept, for what is said before the server has been asked. */
export async function speak(tag: string) {
  if (tag === spoken.value.tag) return
  const file = files[`./languages/${tag}.json`]
  spoken.value = { tag, texts: file ? await file() : {} }
  document.documentElement.lang = tag
  localStorage.setItem(KEPT, tag)
}

/** `$t` in every template. */
export const language = { install: (app: App) => void (app.config.globalProperties.$t = t) }
declare module 'vue' {
  interface ComponentCustomProperties {
    $t: typeof t
  }
}

// Before anything that says something is loaded: texts that stand outside of components are in the language too.
await speak(localStorage.getItem(KEPT) ?? 'en-GB')
