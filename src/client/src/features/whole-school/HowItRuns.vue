<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, take } from '@/app/api/client'
import { moment } from '@/app/dates'
import { queryKey } from '@/app/keys'
import { t } from '@/app/language'
import AskForm from '@/ui/AskForm.vue'
import PageError from '@/ui/PageError.vue'
import { say } from '@/ui/notices'

/** Whether the machine in the cupboard is well: backups, room, faults. */
const queries = useQueryClient()
const { data: running, error } = useQuery({
  queryKey: queryKey('running'),
  queryFn: () => take(api.GET('/api/school/running')),
})
const well = computed(
  () => running.value?.backupsOn && running.value.lastBackup && !running.value.backupFault && !running.value.littleRoom,
)
/** Parts of Fobble by their folders on the server, in the words of the places that they stand behind. */
const places: Record<string, string> = {
  Activities: t('Activities'),
  Agreement: t('Two adults: agreement'),
  Baseline: t('Baseline checks'),
  ChildPage: t('A child'),
  ClassGrid: t('Class'),
  Clipboard: t('Clipboard'),
  Cupboard: t('Cupboard'),
  Groups: t('Groups'),
  GuessJar: t('Guess jar'),
  Mats: t('Mats'),
  Noticing: t('Look again'),
  Planning: t('Plan'),
  Records: t('Records in and out'),
  Reports: t('Pages for families'),
  SetUp: t('Set-up'),
  Sheets: t('Sheets'),
  SkillMaps: t('Map'),
  Today: t('Today'),
  Trail: t('Trail'),
  Week: t('Week'),
  WholeSchool: t('The school'),
}
const slowest = computed(() => running.value?.slowest.filter((s) => places[s.part]) ?? [])
async function backUp() {
  await take(api.POST('/api/school/running/backup'))
  await queries.invalidateQueries({ queryKey: queryKey('running') })
  say(t('A backup was taken, opened again and found whole.'))
}
</script>

<template>
  <section class="ruled">
    <h2>{{ $t('How it runs') }}</h2>
    <PageError v-if="error" :error="error" />
    <div v-if="running" :class="{ told: !well }" data-quoted>
      <p v-if="!running.backupsOn">
        {{
          $t(
            'No backups are taken. If this machine breaks, everything on it is lost: ask whoever looks after it to set where backups go.',
          )
        }}
      </p>
      <template v-else>
        <p v-if="running.lastBackup">{{ $t('The last backup is of {at}.', { at: moment(running.lastBackup) }) }}</p>
        <p v-else>
          {{ $t('No backup was taken yet. The first one comes a few minutes after something has changed.') }}
        </p>
        <p v-if="running.backupFault">
          {{ $t('The last try failed, and it goes on trying: {why}', { why: running.backupFault }) }}
        </p>
      </template>
      <p>
        {{
          running.littleRoom
            ? $t('Only {gigabytes} GB are free beside the data: somebody should make room.', {
                gigabytes: running.freeGigabytes.toFixed(1),
              })
            : $t('{gigabytes} GB are free beside the data.', { gigabytes: Math.floor(running.freeGigabytes) })
        }}
      </p>
      <p v-if="slowest.length">
        {{
          $t('The slowest places, since it was started: {places}.', {
            places: slowest
              .map((s) => $t('{place} ({seconds} s)', { place: places[s.part]!, seconds: s.seconds.toFixed(1) }))
              .join(', '),
          })
        }}
      </p>
      <p v-if="running.faults.length">
        {{
          $t('Faults of the program in the last seven days: {count}. For whoever looks after it: {numbers}', {
            count: running.faults.length,
            numbers: running.faults
              .slice(0, 5)
              .map((f) => `${f.id} (${moment(f.at)})`)
              .join(', '),
          })
        }}
      </p>
      <p v-else>{{ $t('No fault of the program in the last seven days.') }}</p>
      <p class="soft small">
        {{ $t('Fobble {version}, running since {at}.', { version: running.version, at: moment(running.since) }) }}
      </p>
    </div>
    <AskForm v-if="running?.backupsOn" :send="backUp">
      <button class="button">{{ $t('Take a backup now') }}</button>
    </AskForm>
  </section>
</template>

<style scoped src="./school.css"></style>
