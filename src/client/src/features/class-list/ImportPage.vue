<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import { computed, ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { birthDay } from '@/app/dates'
import { useScripts } from '@/app/scripts'
import { fileBody } from '@/ui/fileBody'
import { say, sayError } from '@/ui/notices'
import { useFirstHour } from '@/app/useFirstHour'
import FileField from '@/ui/FileField.vue'
import { t } from '@/app/language'

const { goOn } = useFirstHour()
const queries = useQueryClient()
const { classId, current } = useAccount()
const file = ref<File>()

// By line of the file: marks that tell children of one name apart, and names as they may be printed.
const answers = ref<Record<'mark' | 'printed', Record<number, string>>>({ mark: {}, printed: {} })
const byLine = (said: Record<number, string>) => Object.entries(said).map(([row, letters]) => `${row}:${letters}`)
const request = (sent: File) => {
  const body = fileBody(classId.value, sent, 'text/csv')
  const { mark, printed } = answers.value
  return { ...body, params: { ...body.params, query: { mark: byLine(mark), printed: byLine(printed) } } }
}

function answer(what: 'mark' | 'printed', row: number, event: Event) {
  answers.value[what][row] = (event.target as HTMLInputElement).value.trim()
  if (file.value) preview.mutate(file.value)
}

const preview = useMutation({
  mutationFn: (chosen: File) => take(api.POST('/api/classes/{classId}/class-list/preview', request(chosen))),
  onError: sayError,
})
useScripts(computed(() => preview.data.value?.children.map((c) => c.givenName + c.familyName) ?? []))
const shared = computed(() => preview.data.value?.children.filter((c) => c.shared && !c.already) ?? [])
const asked = computed(() => shared.value.length + (preview.data.value?.unprinted.length ?? 0) > 0)
const taking = useMutation({
  mutationFn: (chosen: File) => take(api.POST('/api/classes/{classId}/class-list', request(chosen))),
  onSuccess: async (taken) => {
    await queries.invalidateQueries()
    say(
      t('{added} {a} added to {name}.', {
        added: taken.added,
        a: taken.added === 1 ? t('child was') : t('children were'),
        name: current.value?.name ?? t('the class'),
      }),
    )
    await goOn('class')
  },
  onError: sayError,
})

function choose(chosen: File) {
  file.value = chosen
  answers.value = { mark: {}, printed: {} }
  preview.mutate(chosen)
}
</script>

<template>
  <div class="page narrow">
    <div class="page-head">
      <h1>{{ $t('Import a class list') }}</h1>
      <span class="soft">{{ $t('into {name}', { name: current?.name }) }}</span>
    </div>
    <FileField
      :label="$t('Choose a CSV file')"
      accept=".csv,.txt,text/csv"
      :hint="
        $t(
          'A heading line, then a child a line: first name, last name, and the date of birth if you like. Nothing is taken before you have seen it.',
        )
      "
      @file="choose"
    />

    <template v-if="preview.data.value">
      <div v-if="preview.data.value.faults.length" class="faults" role="alert">
        <h2 class="warn">
          {{
            $t('{a} in the way. Nothing was taken.', {
              a:
                preview.data.value.faults.length === 1
                  ? $t('One thing stands')
                  : $t('{count} things stand', { count: preview.data.value.faults.length }),
            })
          }}
        </h2>
        <ul>
          <li v-for="(fault, i) in preview.data.value.faults" :key="i">
            <b>{{ $t('Line {row}{a}:', { row: fault.row, a: fault.column ? `, ${fault.column}` : '' }) }}</b>
            {{ fault.reason }}
          </li>
        </ul>
        <p class="soft">
          {{
            asked
              ? $t('Answer below, or put it right in the file and choose it again.')
              : $t('Put it right in the file and choose it again.')
          }}
        </p>
      </div>
      <p v-for="note in preview.data.value.notes" :key="note" class="note">{{ note }}</p>

      <section v-if="preview.data.value.unprinted.length" class="asked" aria-labelledby="unprinted-names">
        <h2 id="unprinted-names">{{ $t('Names that can’t be printed') }}</h2>
        <p class="soft">
          {{
            $t(
              'No font here has all of their letters. Ask the family how they write it in other letters, and write that here.',
            )
          }}
        </p>
        <label v-for="c in preview.data.value.unprinted" :key="c.row" class="one">
          <span>{{ $t('Line {row}: {name}', { row: c.row, name: c.name }) }}</span>
          <input
            type="text"
            maxlength="160"
            size="24"
            :value="c.printed"
            :placeholder="$t('First name and last name')"
            :aria-label="$t('Name to print of the child in line {row}', { row: c.row })"
            @change="answer('printed', c.row, $event)"
          />
        </label>
      </section>

      <section v-if="shared.length" class="asked" aria-labelledby="shared-names">
        <h2 id="shared-names">{{ $t('Children of one name') }}</h2>
        <p class="soft">
          {{
            $t(
              'A letter or two tells them apart on every list and page: of the second name, the group they sit in, anything but what a child is like. Without one, the birthday does.',
            )
          }}
        </p>
        <label v-for="c in shared" :key="c.row" class="one">
          <span>{{
            $t('Line {row}: {givenName} {familyName}{a}', {
              row: c.row,
              givenName: c.givenName,
              familyName: c.familyName,
              a: c.born ? $t(', born {day}', { day: birthDay(c.born) }) : '',
            })
          }}</span>
          <input
            type="text"
            maxlength="12"
            size="6"
            :value="c.mark ?? ''"
            :aria-label="$t('Mark of the child in line {row}', { row: c.row })"
            @change="answer('mark', c.row, $event)"
          />
          <span class="soft">{{ $t('seen as') }}</span> <b class="said">{{ c.name }}</b>
        </label>
      </section>

      <div v-if="preview.data.value.canBeTaken" class="take">
        <button
          type="button"
          class="button main"
          :disabled="taking.isPending.value || preview.data.value.new === 0"
          @click="taking.mutate(file!)"
        >
          {{
            preview.data.value.new === 0
              ? $t('All of them are in the class already')
              : $t('Add {new} {a}', {
                  new: preview.data.value.new,
                  a: preview.data.value.new === 1 ? $t('child') : $t('children'),
                })
          }}
        </button>
        <span v-if="preview.data.value.children.length > preview.data.value.new" class="soft">{{
          $t('{a} already in the class and left as they are', {
            a: preview.data.value.children.length - preview.data.value.new,
          })
        }}</span>
      </div>
      <DataTable
        v-if="preview.data.value.children.length"
        :value="preview.data.value.children"
        data-key="row"
        size="small"
        class="list"
      >
        <Column field="row" :header="$t('Line')" />
        <Column field="givenName" :header="$t('First name')" />
        <Column field="familyName" :header="$t('Last name')" />
        <Column :header="$t('Born')">
          <template #body="{ data }">{{ data.born ? birthDay(data.born) : '' }}</template>
        </Column>
        <Column field="name" :header="$t('Seen as')" />
        <Column header="">
          <template #body="{ data }">{{ data.already ? $t('already in the class') : $t('new') }}</template>
        </Column>
      </DataTable>
    </template>
  </div>
</template>

<style scoped>
.narrow {
  max-width: 56rem;
}

.faults {
  margin-top: 1rem;
  padding-left: 0.9rem;
  border-left: 6px solid var(--brick);
}

.note {
  margin-top: 0.8rem;
  padding-left: 0.9rem;
  border-left: 6px solid var(--line-strong);
}

.asked {
  margin-top: 1rem;
}

.one {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.6rem;
  margin: 0.4rem 0;
}

.one > span:first-child {
  min-width: 18rem;
}

.take {
  display: flex;
  align-items: center;
  gap: 1rem;
  margin: 1rem 0;
}
</style>
