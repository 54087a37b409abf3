import { computed, ref, watch, type Ref } from 'vue'
import type { Schemas } from '@/app/api/client'

/** Walks along steps that the core worked out, forwards and back. Other steps begin at the first. */
export function useSteps(steps: Ref<Schemas['MatStep'][]>) {
  const at = ref(0)
  watch(steps, (now, before) => {
    const same = now.length === before.length && now.every((step, i) => step.says === before[i]!.says)
    if (!same) at.value = 0
  })
  const last = computed(() => Math.max(0, steps.value.length - 1))
  const step = computed(() => steps.value[Math.min(at.value, last.value)])

  /** The lines so far, one after the other, each only once: the sum as it grows. */
  const lines = computed(() => grown(steps.value.slice(0, at.value + 1).map((s) => s.line)))

  return {
    at,
    last,
    step,
    lines,
    on: () => (at.value = Math.min(at.value + 1, last.value)),
    back: () => (at.value = Math.max(at.value - 1, 0)),
  }
}

export const grown = (lines: string[]) => lines.filter((line, i) => line !== lines[i - 1])
