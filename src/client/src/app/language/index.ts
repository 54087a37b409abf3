import { createI18n } from 'petite-vue-i18n'
import { lengthened, spelled, type Texts } from './texts'

/**
 * Every text of the client is said through `t`, with its English as its key. Another language is a file beside the others in languages/: English to the other, what is not in it stays English.
 * It is the one the server speaks, which has a file of the same name. `npm run messages` lists what there is to translate.
 */
const files = import.meta.glob<Texts>('./languages/*.json', { import: 'default' })

/** No language: every text bracketed and longer, to see what has not passed here and what is cut off (CLDR's tag for that). */
const TRIAL = 'en-XA'
const KEPT = 'fobble-language'
let spoken = 'en-GB'

export const language = createI18n({
  legacy: false,
  locale: spoken,
  fallbackLocale: false,
  fallbackFormat: true,
  missingWarn: false,
  fallbackWarn: false,
  messages: {} as Record<string, Texts>,
  messageResolver: (texts, text) => {
    if (spoken === TRIAL) return lengthened(text)
    return (texts as Texts)[text] ?? (spoken.startsWith('en-') ? spelled(texts as Texts, text) : null)
  },
})

export const t = language.global.t

/** From now on in this language; kept, for what is said before the server has been asked. */
export async function speak(tag: string) {
  if (tag === spoken) return
  const file = files[`./languages/${tag}.json`]
  if (file) language.global.setLocaleMessage(tag, await file())
  spoken = tag
  language.global.locale.value = tag
  document.documentElement.lang = tag
  localStorage.setItem(KEPT, tag)
}

// Before anything that says something is loaded: texts that stand outside of components are in the language too.
await speak(localStorage.getItem(KEPT) ?? 'en-GB')
