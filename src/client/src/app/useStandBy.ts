import { getCurrentInstance, onBeforeUnmount, onMounted, shallowRef, type Component } from 'vue'
import { useRouter } from 'vue-router'

/** While nobody waits, gets ready what the next page would make its reader wait for: the pages' own code, one at a time, and the library's first table. Only once a page has brought the library: the clipboard alone stays without. */
export function useStandBy() {
  const router = useRouter()
  const app = getCurrentInstance()!.appContext.app
  const part = shallowRef<Component>()
  let gone = false

  const quiet = () => new Promise<void>((then) => (window.requestIdleCallback ?? setTimeout)(() => then()))

  onMounted(async () => {
    await quiet()
    if (gone || !('$primevue' in app.config.globalProperties)) return
    part.value = (await import('./StandBy.vue')).default
    // Its styles stay when it goes.
    await quiet()
    part.value = undefined
    for (const { components } of router.getRoutes()) {
      await quiet()
      if (gone) return
      const page = components?.default
      if (typeof page === 'function') await (page as () => Promise<unknown>)().catch(() => undefined)
    }
  })
  onBeforeUnmount(() => (gone = true))
  return part
}
