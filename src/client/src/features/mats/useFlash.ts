import { onScopeDispose, ref } from 'vue'

export type Curtain = 'open' | 'closed' | 'ready' | 'flash'

const Ready = 900

/** A curtain before the picture: closed, opened for a moment, closed again; or lifted for good. */
export function useFlash(seconds: () => number) {
  const curtain = ref<Curtain>('open')
  let timer: ReturnType<typeof setTimeout> | undefined

  function later(milliseconds: number, then: () => void) {
    clearTimeout(timer)
    timer = setTimeout(then, milliseconds)
  }

  function close() {
    clearTimeout(timer)
    curtain.value = 'closed'
  }

  function lift() {
    clearTimeout(timer)
    curtain.value = 'open'
  }

  /** First all eyes up, then the picture for its time. */
  function flash() {
    curtain.value = 'ready'
    later(Ready, () => {
      curtain.value = 'flash'
      later(seconds() * 1000, close)
    })
  }

  onScopeDispose(() => clearTimeout(timer))
  return { curtain, close, lift, flash }
}
