import { ref } from 'vue'

export interface Notice {
  id: number
  text: string
  bad: boolean
}

/** Short messages over the string, where nothing has to be tapped. A refusal stays until it is put away; good news leaves by itself. */
export const notices = ref<Notice[]>([])
let next = 1

export function say(text: string, bad = false) {
  const id = next++
  notices.value.push({ id, text, bad })
  if (!bad) setTimeout(() => putAway(id), 5000)
}

export function putAway(id: number) {
  notices.value = notices.value.filter((n) => n.id !== id)
}

export function sayError(error: unknown) {
  say(error instanceof Error ? error.message : String(error), true)
}
