<script setup lang="ts">
import { computed, inject, onBeforeUnmount, useId, useTemplateRef, watch } from 'vue'
import { askedForm, controlIn } from './askForm'

/** A field of a form, beneath its label where it has one, and beneath that what is wrong with it. */
const { name, label = '' } = defineProps<{ name: string; label?: string }>()
const form = inject(askedForm)!
const root = useTemplateRef<HTMLElement>('root')
const id = useId()
const reasons = computed(() => form.faults.value[name] ?? [])
form.fields.set(name, () => root.value)
onBeforeUnmount(() => form.fields.delete(name))
watch(
  reasons,
  (now) => {
    const control = controlIn(root.value)
    control?.toggleAttribute('aria-invalid', now.length > 0)
    if (now.length) {
      control?.setAttribute('aria-invalid', 'true')
      control?.setAttribute('aria-describedby', id)
    } else control?.removeAttribute('aria-describedby')
  },
  { flush: 'post' },
)
</script>

<template>
  <span ref="root" class="faulty" :class="{ wrong: reasons.length }">
    <!-- eslint-disable-next-line vuejs-accessibility/label-has-for -- its control is what stands in it -->
    <label v-if="label" class="field"
      ><span>{{ label }}</span
      ><slot
    /></label>
    <slot v-else />
    <span v-if="reasons.length" :id="id" role="alert"
      ><em v-for="reason in reasons" :key="reason">{{ reason }}</em></span
    >
  </span>
</template>

<style scoped>
.faulty {
  display: inline-grid;
  align-content: start;
  align-self: start;
}

.faulty:has(> .field) {
  display: grid;
}

.wrong :deep(:is(input, select, textarea)) {
  border-color: var(--brick);
  border-width: 2px;
}

em {
  display: block;
  max-width: 18rem;
  margin-top: 0.2rem;
  color: var(--brick);
  font-size: 0.9rem;
  font-style: normal;
}
</style>
