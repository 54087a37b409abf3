<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, Refused, take, type Schemas } from '@/app/api/client'
import { fileBody } from '@/ui/fileBody'
import FaultList from '@/ui/FaultList.vue'
import { say, sayError } from '@/ui/notices'
import FileField from '@/ui/FileField.vue'
import { t } from '@/app/language'

/** The map as a file, out and in. What a file would change is shown before it is taken. */
const queries = useQueryClient()
const { classId } = useAccount()
const chosen = ref<File>()
const seen = ref<Schemas['MapFilePreview']>()

const sent = (file: File) => fileBody(classId.value, file, 'application/octet-stream')

async function look(file: File) {
  try {
    chosen.value = file
    seen.value = await take(api.POST('/api/classes/{classId}/map/file/preview', sent(file)))
  } catch (problem) {
    sayError(problem)
  }
}

async function takeIt() {
  if (!chosen.value) return
  try {
    await take(api.POST('/api/classes/{classId}/map/file', sent(chosen.value)))
    seen.value = undefined
    await queries.invalidateQueries()
    say(t('The map is taken.'))
  } catch (problem) {
    if (problem instanceof Refused && problem.status === 422) seen.value = problem.body as Schemas['MapFilePreview']
    else sayError(problem)
  }
}
</script>

<template>
  <details class="file">
    <summary class="button">{{ $t('As a file') }}</summary>
    <div class="sheet">
      <p>
        <a :href="`/api/classes/${classId}/map/file/case`" download>{{ $t('CASE 1.0 (JSON)') }}</a> ·
        <a :href="`/api/classes/${classId}/map/file/csv`" download>{{ $t('CSV') }}</a>
      </p>
      <FileField :label="$t('Take a map from a file')" accept=".json,.csv" @file="look" />
      <template v-if="seen">
        <FaultList :faults="seen.faults" />
        <template v-if="seen.canBeTaken">
          <p>
            {{
              $t('{count} new, {count2} changed, {count3} hidden.', {
                count: seen.new.length,
                count2: seen.changed.length,
                count3: seen.hidden.length,
              })
            }}
            <span class="soft small">{{ [...seen.new, ...seen.changed, ...seen.hidden].slice(0, 8).join(', ') }}</span>
          </p>
          <button type="button" class="button main" @click="takeIt">{{ $t('Take it') }}</button>
        </template>
      </template>
    </div>
  </details>
</template>

<style scoped>
.file {
  position: relative;
}

summary {
  list-style: none;
}

.sheet {
  position: absolute;
  right: 0;
  z-index: 5;
  width: 24rem;
  padding: 0.6rem 1rem 1rem;
  border: 1.5px solid var(--ink);
  border-radius: var(--corner);
  background: var(--card);
}
</style>
