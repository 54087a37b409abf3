import { onScopeDispose, watch, type Ref } from 'vue'

// Han letters, kana and hangul come in hundreds of pieces; the list of them is fetched where a name needs it.
const many = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]/u
const list = '/api/fonts/han.css'

/** Has what is to be shown in the letters of any script. */
export function useScripts(texts: Ref<readonly string[]>) {
  const stop = watch(
    texts,
    (now) => {
      if (!now.some((text) => many.test(text)) || document.querySelector(`link[href="${list}"]`)) return
      document.head.append(Object.assign(document.createElement('link'), { rel: 'stylesheet', href: list }))
    },
    { immediate: true },
  )
  onScopeDispose(stop)
}
