<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useAccount } from '../account'
import { api, take } from '../api/client'
import { queryKey } from '../keys'
import { useClassNames } from '../useClassNames'
import { find, type Found } from './find'
import { everywhere, ofPage } from './keys'
import { t } from '@/app/language'

/** One place to find everything, with one key; and the keys of the page that is open. */
const { pages } = defineProps<{ pages: { name: string; label: string }[] }>()
const route = useRoute()
const router = useRouter()
const { classId } = useAccount()
const names = useClassNames()
const asked = ref(false)
const wanted = ref('')
const at = ref(0)
const finding = useTemplateRef('finding')
const helping = useTemplateRef('helping')
const path = () => ({ params: { path: { classId: classId.value } } })
const { data: library } = useQuery({
  queryKey: queryKey('activities', classId, {}),
  queryFn: () => take(api.GET('/api/classes/{classId}/activities', path())),
  enabled: asked,
  staleTime: 60_000,
})
const { data: mats } = useQuery({
  queryKey: queryKey('mats', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/mats', path())),
  enabled: asked,
  staleTime: 60_000,
})
const { data: sheets } = useQuery({
  queryKey: queryKey('sheets', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/sheets', path())),
  enabled: asked,
  staleTime: 60_000,
})

const all = computed<Found[]>(() => {
  const own = { classId: classId.value }
  return [
    ...names.value.map((c) => ({
      kind: t('Child'),
      label: c.name,
      to: { name: 'child', params: { ...own, childId: c.id } },
    })),
    ...pages.map((p) => ({ kind: t('Page'), label: p.label, to: { name: p.name, params: own } })),
    ...(library.value?.skills ?? []).map((s) => ({
      kind: t('Skill'),
      label: s.short,
      to: { name: 'map', params: own, query: { skill: s.id } },
    })),
    ...(library.value?.found ?? []).map((a) => ({
      kind: t('Activity'),
      label: a.name,
      to: { name: 'activity', params: { ...own, id: a.id }, query: a.skillId ? { skill: a.skillId } : {} },
    })),
    ...(mats.value ?? []).map((m) => ({
      kind: t('Mat'),
      label: m.name,
      to: { name: 'mat', params: { ...own, desk: m.desk, kind: m.kind ?? '' } },
    })),
    ...(sheets.value?.offers ?? []).map((s) => ({
      kind: t('Sheet'),
      label: s.name,
      to: { name: 'sheets', params: own, query: { kind: s.kind } },
    })),
  ]
})
const found = computed(() => find(all.value, wanted.value))
const keys = computed(() => [...(ofPage[String(route.name)] ?? []), ...everywhere])

async function look() {
  asked.value = true
  wanted.value = ''
  at.value = 0
  finding.value?.showModal()
  await nextTick()
}
defineExpose({ look })

function go(one: Found | undefined) {
  if (!one) return
  finding.value?.close()
  void router.push(one.to)
}
const step = (by: number) => (at.value = Math.max(0, Math.min(found.value.length - 1, at.value + by)))

// Where something is being written, a letter is a letter.
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  const on = event.target as HTMLElement | null
  if (event.ctrlKey || event.metaKey || event.altKey || on?.closest('input, textarea, select, [contenteditable]'))
    return
  if (event.key === '/') {
    event.preventDefault()
    void look()
  } else if (event.key === '?' && route.name !== 'mat') {
    // A mat lists its own keys on the mat.
    event.preventDefault()
    helping.value?.showModal()
  }
})
</script>

<template>
  <dialog ref="finding" class="finder" :aria-label="$t('Look for anything')" closedby="any">
    <input
      v-model="wanted"
      type="text"
      role="combobox"
      aria-expanded="true"
      aria-controls="found"
      :aria-activedescendant="found[at] ? `found-${at}` : undefined"
      :aria-label="$t('A child, a skill, an activity, a mat, a sheet, a page')"
      :placeholder="$t('A child, a skill, an activity, a mat, a page')"
      @input="at = 0"
      @keydown.down.prevent="step(1)"
      @keydown.up.prevent="step(-1)"
      @keydown.enter.prevent="go(found[at])"
    />
    <ul id="found" role="listbox" :aria-label="$t('Found')">
      <li
        v-for="(one, i) in found"
        :id="`found-${i}`"
        :key="one.kind + one.label + i"
        role="option"
        tabindex="-1"
        :aria-selected="i === at"
        @click="go(one)"
        @keydown.enter="go(one)"
      >
        <b>{{ one.label }}</b> <span class="soft small">{{ one.kind }}</span>
      </li>
    </ul>
    <p v-if="wanted.trim() && !found.length" class="soft" role="status">{{ $t('Nothing of that name here.') }}</p>
  </dialog>
  <dialog ref="helping" class="finder" aria-labelledby="keys-head" closedby="any">
    <h2 id="keys-head">{{ $t('Keys of this page') }}</h2>
    <dl>
      <template v-for="k in keys" :key="k.key">
        <dt>
          <kbd>{{ k.key }}</kbd>
        </dt>
        <dd>{{ k.does }}</dd>
      </template>
    </dl>
    <form method="dialog">
      <button class="button">{{ $t('Close') }}</button>
    </form>
  </dialog>
</template>

<style scoped>
.finder {
  width: min(34rem, 92vw);
  margin-top: 12vh;
  padding: 1rem 1.2rem;
  border: 1.5px solid var(--ink);
  border-radius: var(--corner);
  background: var(--card);
  color: var(--ink);
}

.finder::backdrop {
  background: rgb(29 59 52 / 35%);
}

input {
  width: 100%;
}

ul {
  margin: 0.5rem 0 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: var(--target);
  padding: 0 0.6rem;
  border-radius: var(--corner);
  cursor: pointer;
}

li[aria-selected='true'],
li:hover {
  background: var(--spruce-wash);
}

h2 {
  margin-top: 0;
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.4rem 1rem;
  align-items: center;
}

dd {
  margin: 0;
}

kbd {
  padding: 0.1rem 0.5rem;
  border: 1.5px solid var(--line-strong);
  border-radius: 4px;
  font: 700 0.95rem var(--body);
  white-space: nowrap;
}
</style>
