<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { dayAndMonth } from '@/app/dates'
import FaultList from '@/ui/FaultList.vue'
import { fileBody } from '@/ui/fileBody'
import { say, sayError } from '@/ui/notices'
import FileField from '@/ui/FileField.vue'
import { t } from '@/app/language'

/** Closures from a file, looked at before they are taken; lessons out for a calendar program. */
const queries = useQueryClient()
const { classId, leadsSchool } = useAccount()
const file = ref<File>()
const request = (sent: File) => fileBody(classId.value, sent, 'application/octet-stream')
const preview = useMutation({
  mutationFn: (sent: File) => take(api.POST('/api/classes/{classId}/calendar/closures/preview', request(sent))),
  onError: sayError,
})
const taking = useMutation({
  mutationFn: (sent: File) => take(api.POST('/api/classes/{classId}/calendar/closures', request(sent))),
  onSuccess: async (taken) => {
    file.value = undefined
    preview.reset()
    await queries.invalidateQueries()
    say(t('{new} {a} in the calendar.', { new: taken.new, a: taken.new === 1 ? t('entry is') : t('entries are') }))
  },
  onError: sayError,
})
function choose(chosen: File) {
  file.value = chosen
  preview.mutate(chosen)
}

const handOut = useMutation({
  mutationFn: () =>
    take(
      api.POST('/api/classes/{classId}/calendar/lessons', {
        params: { path: { classId: classId.value } },
        parseAs: 'blob',
      }),
    ),
  onSuccess: (blob) => {
    const link = document.createElement('a')
    link.href = URL.createObjectURL(blob as unknown as Blob)
    link.download = 'lessons.ics'
    link.click()
    setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
  },
  onError: sayError,
})
</script>

<template>
  <div class="files">
    <FileField
      v-if="leadsSchool"
      :label="$t('Closures from a file')"
      accept=".ics,.csv,text/calendar,text/csv"
      @file="choose"
    />
    <button type="button" class="button small" :disabled="handOut.isPending.value" @click="handOut.mutate()">
      {{ $t('Lessons for my calendar') }}
    </button>
    <template v-if="preview.data.value && file">
      <FaultList :faults="preview.data.value.faults" />
      <p v-for="note in preview.data.value.notes" :key="note" class="small soft">{{ note }}</p>
      <ul class="small">
        <li v-for="c in preview.data.value.closures.slice(0, 30)" :key="c.name + c.first" :class="{ soft: c.known }">
          <b>{{ c.name }}</b> {{ dayAndMonth(c.first)
          }}{{ c.last !== c.first ? ' ' + $t('to {day}', { day: dayAndMonth(c.last) }) : '' }}
          {{ c.known ? $t('(is there already)') : '' }}
        </li>
      </ul>
      <button
        v-if="preview.data.value.canBeTaken"
        type="button"
        class="button main"
        :disabled="taking.isPending.value"
        @click="taking.mutate(file)"
      >
        {{ $t('Take {new} into the calendar', { new: preview.data.value.new }) }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.files {
  margin-top: 0.6rem;
}

.files .button {
  margin-right: 0.5rem;
}

label.button:focus-within {
  outline: 3px solid var(--marigold);
  outline-offset: 2px;
}
</style>
