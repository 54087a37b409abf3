<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import ProgressBar from 'primevue/progressbar'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useAccount } from '@/app/account'
import { api, Refused, take, type Schemas } from '@/app/api/client'
import { dayAndMonth } from '@/app/dates'
import ClassTabs from '@/ui/ClassTabs.vue'
import FaultList from '@/ui/FaultList.vue'
import { fileBody } from '@/ui/fileBody'
import { say, sayError } from '@/ui/notices'
import DayField from '@/ui/DayField.vue'
import FileField from '@/ui/FileField.vue'
import { t } from '@/app/language'
import { useImport } from './useImport'

/** The record as files: out for a spreadsheet or a research store, in from a spreadsheet, and a child that comes from another class. */
const { classId } = useAccount()
const router = useRouter()
const queries = useQueryClient()
const from = ref('')
const to = ref('')
const asked = computed(() => {
  const days = new URLSearchParams()
  if (from.value) days.set('from', from.value)
  if (to.value) days.set('to', to.value)
  return days.size ? `?${days}` : ''
})

const list = ref<File>()
const preview = ref<Schemas['RecordsPreview']>()
const { share, send } = useImport()
// A request whose body is the list, and which can be asked after.
const listBody = (file: File, query: { import: string }) => {
  const body = fileBody(classId.value, file, 'text/csv')
  return { ...body, params: { ...body.params, query } }
}
async function lookAtList(file: File) {
  list.value = file
  preview.value = undefined
  try {
    preview.value = await send((query) =>
      take(api.POST('/api/classes/{classId}/records/csv/preview', listBody(file, query))),
    )
  } catch (problem) {
    sayError(problem)
  }
}
async function takeList() {
  const file = list.value
  if (!file) return
  try {
    const taken = await send((query) => take(api.POST('/api/classes/{classId}/records/csv', listBody(file, query))))
    preview.value = undefined
    await queries.invalidateQueries()
    say(t('{new} observations are in.', { new: taken.new }))
  } catch (problem) {
    if (problem instanceof Refused && problem.status === 422) preview.value = problem.body as Schemas['RecordsPreview']
    else sayError(problem)
  }
}

const childFile = ref<File>()
const child = ref<Schemas['ChildFilePreview']>()
async function lookAtChild(file: File) {
  childFile.value = file
  child.value = undefined
  try {
    child.value = await take(
      api.POST(
        '/api/classes/{classId}/child-file/preview',
        fileBody(classId.value, childFile.value, 'application/json'),
      ),
    )
  } catch (problem) {
    sayError(problem)
  }
}
async function takeChild() {
  if (!childFile.value) return
  try {
    const taken = await take(
      api.POST('/api/classes/{classId}/child-file', fileBody(classId.value, childFile.value, 'application/json')),
    )
    await queries.invalidateQueries()
    await router.push({ name: 'child', params: { classId: classId.value, childId: taken.childId } })
  } catch (problem) {
    if (problem instanceof Refused && problem.status === 422) child.value = problem.body as Schemas['ChildFilePreview']
    else sayError(problem)
  }
}
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('In and out') }}</h1>
    </div>
    <ClassTabs />
    <div class="two">
      <section class="ruled">
        <h2>{{ $t('Out') }}</h2>
        <p>
          <DayField v-model="from" :label="$t('From')" /> <DayField v-model="to" :label="$t('To')" /> {{ ' '
          }}<span class="small soft">{{ $t('empty: everything') }}</span>
        </p>
        <ul class="files">
          <li>
            <a :href="`/api/classes/${classId}/records/csv${asked}`" download>{{
              $t('Observations for a spreadsheet (CSV)')
            }}</a>
            <span class="small soft">{{
              $t('with the children’s short names, adults, notes, and what was withdrawn')
            }}</span>
          </li>
          <li>
            <a :href="`/api/classes/${classId}/records/statements${asked}`" download>{{
              $t('Statements, a line of JSON each (xAPI)')
            }}</a>
            <span class="small soft">{{ $t('children under a number, no name and no note') }}</span>
          </li>
          <li>
            <a :href="`/api/classes/${classId}/summary`" target="_blank">{{ $t('Summary of the class (PDF)') }}</a>
            <span class="small soft">{{ $t('for a head or a maths lead; no child is named') }}</span>
          </li>
          <li>
            {{ $t('A child’s file and the page for a family') }}
            <span class="small soft">{{ $t('are on each child’s own page') }}</span>
          </li>
        </ul>
        <p class="small soft">
          {{
            $t(
              'These files are about children. Hand them on only as your school’s rules on data allow, and delete copies you no longer need.',
            )
          }}
        </p>
      </section>

      <section class="ruled">
        <h2>{{ $t('In') }}</h2>
        <FileField
          :label="$t('Observations from a spreadsheet (CSV)')"
          accept=".csv,text/csv"
          :hint="
            $t(
              'Columns: Child, Skill, Day, Support; if you have them also Time, Setting, Shown with, Numbers, Slip, Way, Note, Seen by.',
            )
          "
          @file="lookAtList"
        />
        <!-- Not at once: a usual list is in before it could be read. -->
        <div v-if="share !== undefined" class="under-way">
          <p id="under-way">{{ preview ? $t('Taking them in …') : $t('Reading the list …') }}</p>
          <ProgressBar :value="Math.round(100 * share)" aria-labelledby="under-way" />
        </div>
        <template v-if="preview">
          <FaultList :faults="preview.faults" />
          <p v-for="note in preview.notes" :key="note" class="soft">{{ note }}</p>
          <template v-if="preview.canBeTaken">
            <p>
              {{
                $t('{new} new of {children} children{a}; {known} are here already and stay as they are.', {
                  new: preview.new,
                  children: preview.children,
                  a: preview.first
                    ? $t(', from {day} to {day2}', {
                        day: dayAndMonth(preview.first),
                        day2: dayAndMonth(preview.last!),
                      })
                    : '',
                  known: preview.known,
                })
              }}
            </p>
            <button type="button" class="button main" :disabled="!preview.new || share !== undefined" @click="takeList">
              {{ $t('Take them') }}
            </button>
          </template>
        </template>

        <FileField
          :label="$t('A child’s file from another class or school (JSON)')"
          accept=".json,application/json"
          @file="lookAtChild"
        />
        <p class="small soft">
          {{ $t('The form is published:') }}
          <a :href="`/api/classes/${classId}/child-file/schema`" target="_blank">{{ $t('JSON Schema') }}</a>
        </p>
        <template v-if="child">
          <ul v-if="child.faults.length" class="warn" role="alert">
            <li v-for="fault in child.faults" :key="fault">{{ fault }}</li>
          </ul>
          <template v-if="child.canBeTaken">
            <p>
              <b class="said">{{ child.name }}</b>{{
                $t(', from {fromClass}, {fromSchool}: {new} observations', {
                  fromClass: child.fromClass,
                  fromSchool: child.fromSchool,
                  new: child.new,
                })
              }}<template v-if="child.known">{{
                $t(', {known} more are here already', { known: child.known })
              }}</template
              >.
              {{
                child.joinsChildId
                  ? $t('A child of this name is in the class and gets the record.')
                  : $t('The child is added to the class.')
              }}
            </p>
            <p v-if="child.unknownSkills" class="soft">
              {{
                $t(
                  '{unknownSkills} skills are not on this school’s map: what was seen of them is kept, and not judged.',
                  { unknownSkills: child.unknownSkills },
                )
              }}
            </p>
            <button type="button" class="button main" @click="takeChild">{{ $t('Take the child in') }}</button>
          </template>
        </template>
      </section>
    </div>
  </div>
</template>

<style scoped>
/* What belongs to the list ends before the next file begins. */
.ruled :deep(.file-field) {
  margin-block: 0.9rem 0.4rem;
}

.under-way {
  max-width: 24rem;
  animation: come 0.4s step-end;
}

@keyframes come {
  from {
    opacity: 0;
  }
}

.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2.2rem;
  max-width: 76rem;
}

.files {
  padding: 0;
  list-style: none;
}

.files li {
  padding: 0.35rem 0;
}

.files span {
  display: block;
}

@media (max-width: 800px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
