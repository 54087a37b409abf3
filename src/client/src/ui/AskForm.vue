<script setup lang="ts">
import { computed, nextTick, provide, ref } from 'vue'
import { Refused } from '@/app/api/client'
import { askedForm, controlIn, wrongWith, type AskedForm, type Faults } from './askForm'

/**
 * A form whose faults stand at their fields, the first of them in focus. The rules are kept on the server; what a field says of itself (required, from, to) is seen
 * here before it is sent. A fault of no field stands at the end.
 */
const { send } = defineProps<{ send: () => Promise<unknown> }>()
const faults = ref<Faults>({})
const fields: AskedForm['fields'] = new Map()
provide(askedForm, { faults, fields })
const rest = computed(() =>
  Object.entries(faults.value)
    .filter(([name]) => !fields.has(name))
    .flatMap(([, reasons]) => reasons),
)
const busy = ref(false)

function seenHere(): Faults {
  const found: Faults = {}
  for (const [name, field] of fields) {
    const control = controlIn(field())
    const wrong = control && wrongWith(control)
    if (wrong) found[name] = [wrong]
  }
  return found
}

async function submit() {
  faults.value = seenHere()
  if (!Object.keys(faults.value).length) {
    busy.value = true
    try {
      await send()
    } catch (problem) {
      const told = problem instanceof Refused ? problem.fields : {}
      faults.value = Object.keys(told).length
        ? told
        : { '': [problem instanceof Error ? problem.message : String(problem)] }
    } finally {
      busy.value = false
    }
  }
  await nextTick()
  const first = [...fields].find(([name]) => faults.value[name])
  if (first) controlIn(first[1]())?.focus()
}
</script>

<template>
  <form novalidate :aria-busy="busy" @submit.prevent="busy || submit()">
    <slot />
    <p v-for="reason in rest" :key="reason" class="warn rest" role="alert">{{ reason }}</p>
  </form>
</template>

<style scoped>
.rest {
  flex-basis: 100%;
  margin: 0.4rem 0 0;
}
</style>
