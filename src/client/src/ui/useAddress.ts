import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

/**
 * What lies on a mat stands in its address, so that an activity can open it ready laid and nothing is lost when the page is opened again.
 * Values that are the usual ones are left out.
 */
export function useAddress<T extends Record<string, string>>(usual: T) {
  const route = useRoute()
  const router = useRouter()
  const at = computed(
    () =>
      Object.fromEntries(Object.entries(usual).map(([key, value]) => [key, textOf(route.query[key]) ?? value])) as T,
  )

  function put(changes: Partial<T>) {
    const all = { ...at.value, ...changes }
    const others = Object.entries(route.query).filter(([key]) => !(key in usual))
    const own = Object.entries(all).filter(([key, value]) => value !== usual[key])
    void router.replace({ query: Object.fromEntries([...others, ...own]) })
  }

  return { at, put }
}

const textOf = (value: unknown) => (typeof value === 'string' ? value : undefined)

/** A whole number out of an address, within bounds; the usual one where it is none. */
export function whole(text: string, low: number, high: number, usual: number) {
  const number = Number.parseInt(text, 10)
  return Number.isNaN(number) ? usual : Math.min(high, Math.max(low, number))
}

/** A seed for a new throw; short, so that addresses stay short. */
export const freshSeed = () => String(Math.floor(Math.random() * 99_999) + 1)
