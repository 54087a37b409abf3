<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, take, type Schemas } from '@/app/api/client'
import { moment } from '@/app/dates'
import { queryKey } from '@/app/keys'
import { t } from '@/app/language'
import { useScripts } from '@/app/scripts'
import AskForm from '@/ui/AskForm.vue'
import { rawBody } from '@/ui/fileBody'
import FileField from '@/ui/FileField.vue'
import { say, sayError } from '@/ui/notices'
import PageError from '@/ui/PageError.vue'

/** The newest list of the school's office, held against what is here. It proposes; whoever leads the school ticks what is done. */
type View = Schemas['RosterView']
const queries = useQueryClient()
const { data: view, error } = useQuery({
  queryKey: queryKey('roster'),
  queryFn: () => take(api.GET('/api/school/roster', {})),
})

useScripts(computed(() => view.value?.proposals.map((p) => p.sentence) ?? []))

const kinds = [
  {
    kind: 'Same',
    label: t('Here under the same name'),
    soft: t('The office and Fobble mean the same child from then on.'),
  },
  { kind: 'Joined', label: t('New on the list'), soft: '' },
  { kind: 'CameBack', label: t('Back again'), soft: '' },
  { kind: 'Moved', label: t('In another class'), soft: t('Its record goes with it.') },
  { kind: 'Renamed', label: t('Called otherwise, or born on another day'), soft: '' },
  {
    kind: 'Left',
    label: t('No more on the list'),
    soft: t('A record is kept for as long as usual, and on no class’s page.'),
  },
] as const
const groups = computed(() =>
  kinds
    .map((k) => ({ ...k, proposals: view.value?.proposals.filter((p) => p.kind === k.kind) ?? [] }))
    .filter((g) => g.proposals.length),
)

// More are folded away: what is to be done with them is the same.
const FEW = 6

// That a child is the one of the same name changes nothing here: ticked already. All else wants a look.
const ticks = ref<Record<string, boolean>>({})
const sameAs = ref<Record<string, number | null>>({})
const may = (p: Schemas['ProposalView']) => !p.cantBe || !!sameAs.value[p.id]
const ticked = (p: Schemas['ProposalView']) => may(p) && (ticks.value[p.id] ?? p.kind === 'Same')
const done = computed(() => view.value?.proposals.filter(ticked) ?? [])
const tickAll = (proposals: Schemas['ProposalView'][], on: boolean) =>
  proposals.forEach((p) => (ticks.value[p.id] = on && may(p)))

async function settle(call: Promise<View>, words?: string) {
  const now = await call
  ticks.value = {}
  sameAs.value = {}
  queries.setQueryData(queryKey('roster'), now)
  await queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'roster' })
  if (words) say(words)
}
const answer = (answers: Schemas['RosterAnswer'][]) =>
  take(api.POST('/api/school/roster/answers', { body: { answers } })).catch(async (problem: unknown) => {
    await queries.invalidateQueries({ queryKey: queryKey('roster') })
    throw problem
  })
// Told beside the page: the form may be gone with what somebody else has decided.
const doTicked = () =>
  settle(
    answer(done.value.map(({ id }) => ({ id, do: true, sameAs: sameAs.value[id] ?? null }))),
    done.value.length === 1 ? t('It is done.') : t('{count} are done.', { count: done.value.length }),
  ).catch(sayError)
const leaveSo = (p: Schemas['ProposalView']) =>
  settle(answer([{ id: p.id, do: false, sameAs: null }]), t('It stays as it is here.')).catch(sayError)
const lookAgain = () => settle(take(api.DELETE('/api/school/roster/left-so', {}))).catch(sayError)
const link = (room: Schemas['ComparedClass'], event: Event) =>
  take(
    api.PUT('/api/school/roster/classes/{classId}', {
      params: { path: { classId: room.id } },
      body: { key: (event.target as HTMLSelectElement).value },
    }),
  )
    .catch(sayError)
    .finally(() => queries.invalidateQueries({ queryKey: queryKey('roster') }))
const bringIn = (file: File) =>
  settle(
    take(
      api.POST('/api/school/roster', { params: { query: { name: file.name } }, ...rawBody(file, 'application/zip') }),
    ),
  ).catch(sayError)
const standIn = () => settle(take(api.POST('/api/school/roster/stand-in', {}))).catch(sayError)

const where = (fault: Schemas['RosterFaultRow']) =>
  [fault.file, fault.file && t('line {row}', { row: fault.row }), fault.column].filter(Boolean).join(', ')
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('The office’s list') }}</h1>
      <span class="soft">{{ $t('it proposes, you decide; no file takes a child away') }}</span>
    </div>
    <PageError v-if="error" :error="error" />
    <div v-if="view" class="parts">
      <section class="ruled">
        <div v-if="view.refused" class="told" role="status">
          <p>
            <b>{{
              $t('{file} of {at} was not taken.', { file: view.refused.fileName, at: moment(view.refused.at) })
            }}</b>
            {{ ' ' + (view.taken ? $t('What is below is of the list before.') : '') }}
          </p>
          <ul class="small">
            <li v-for="(fault, i) in view.refused.faults.slice(0, 12)" :key="i">
              <b v-if="where(fault)">{{ where(fault) }}:</b>{{ ' ' + fault.reason }}
            </li>
          </ul>
        </div>
        <p v-if="view.taken" class="soft" data-quoted>
          {{
            $t('{file}, {at}: {count} children.', {
              file: view.taken.fileName,
              at: moment(view.taken.at),
              count: view.taken.children,
            })
          }}
        </p>
        <p v-else-if="!view.refused">{{ $t('No list has come yet.') }}</p>
        <p v-if="view.caution" class="told warn" role="alert">{{ view.caution }}</p>

        <AskForm v-if="groups.length" :send="doTicked">
          <fieldset v-for="group in groups" :key="group.kind">
            <legend>
              {{ group.label }}
              <button
                v-if="group.proposals.length > 1"
                type="button"
                class="button plain small"
                :aria-label="
                  group.proposals.every(ticked)
                    ? $t('Tick none of: {what}', { what: group.label })
                    : $t('Tick all of: {what}', { what: group.label })
                "
                @click="tickAll(group.proposals, !group.proposals.every(ticked))"
              >
                {{ group.proposals.every(ticked) ? $t('Tick none') : $t('Tick all') }}
              </button>
            </legend>
            <p v-if="group.soft" class="soft small">{{ group.soft }}</p>
            <component :is="group.proposals.length > FEW ? 'details' : 'div'">
              <summary v-if="group.proposals.length > FEW">
                {{ $t('All {count}, one by one', { count: group.proposals.length }) }}
              </summary>
              <div v-for="p in group.proposals" :key="p.id" class="one">
                <label class="check"
                  ><input
                    type="checkbox"
                    :checked="ticked(p)"
                    :disabled="!may(p)"
                    @change="ticks[p.id] = ($event.target as HTMLInputElement).checked"
                  />
                  <span data-quoted>{{ p.sentence }}</span></label
                >
                <label v-if="p.kind === 'Joined' && view.open.length" class="small same"
                  >{{ $t('It is') }}
                  <select v-model="sameAs[p.id]" class="box">
                    <option :value="undefined">{{ $t('new here, too') }}</option>
                    <option v-for="c in view.open" :key="c.id" :value="c.id">{{ c.name }}</option>
                  </select></label
                >
                <button
                  type="button"
                  class="button plain small"
                  :aria-label="$t('Leave it so: {what}', { what: p.sentence })"
                  @click="leaveSo(p)"
                >
                  {{ $t('Leave it so') }}
                </button>
                <span v-if="p.cantBe" class="small cant">{{ p.cantBe }}</span>
              </div>
            </component>
          </fieldset>
          <p>
            <button class="button main" :disabled="!done.length">
              {{
                done.length === 0
                  ? $t('Tick what is to be done')
                  : done.length === 1
                    ? $t('Do the one that is ticked')
                    : $t('Do the {count} that are ticked', { count: done.length })
              }}
            </button>
          </p>
        </AskForm>
        <p v-else-if="view.taken && !view.classes.some((room) => room.office)">
          {{ $t('The list has no class of this name: say which class is which.') }}
        </p>
        <p v-else-if="view.taken">{{ $t('Nothing to decide: the list and Fobble say the same.') }}</p>
        <p v-if="view.leftSo" class="small">
          {{
            view.leftSo === 1
              ? $t('One difference is left as it is.')
              : $t('{count} differences are left as they are.', { count: view.leftSo })
          }}
          {{ ' ' }}<button type="button" class="button plain small" @click="lookAgain">{{ $t('Look again') }}</button>
        </p>
      </section>

      <section>
        <div class="ruled">
          <h2>{{ $t('A list comes in') }}</h2>
          <FileField
            :label="$t('Choose the office’s file')"
            accept=".zip,application/zip"
            :hint="$t('A zip in the form of OneRoster 1.2 or 1.1, with all children each time.')"
            @file="bringIn"
          />
          <p v-if="view.watched" class="soft small" data-quoted>
            {{ $t('The newest zip in {folder} comes in by itself.', { folder: view.watched }) }}
          </p>
          <p v-else class="soft small">
            {{ $t('With a folder set on the server, the office’s files of each night come in by themselves.') }}
          </p>
          <p v-if="view.standIn">
            <button type="button" class="button" @click="standIn">{{ $t('The made-up office’s next list') }}</button>
            <span class="soft small">{{ ' ' + $t('only in this demo') }}</span>
          </p>
        </div>
        <div v-if="view.taken" class="ruled">
          <h2>{{ $t('Which class is which') }}</h2>
          <p class="soft small">{{ $t('Here, and on the list.') }}</p>
          <label v-for="room in view.classes" :key="room.id" class="field"
            ><span>{{ room.name }}</span
            ><select class="box" :value="room.office?.key ?? ''" @change="link(room, $event)">
              <option v-if="room.office" :value="room.office.key">{{ room.office.title }}</option>
              <option v-else value="" disabled>{{ $t('not on the list: not compared') }}</option>
              <option v-for="c in view.free" :key="c.key" :value="c.key">{{ c.title }}</option>
            </select></label
          >
        </div>
        <div class="ruled">
          <h2>{{ $t('A list goes out') }}</h2>
          <p>
            <a class="button" href="/api/school/roster/file" download>{{ $t('Who is in which class') }}</a>
          </p>
          <p class="soft small">
            {{ $t('In the same form, for another program of the school: names, days of birth, classes, adults.') }}
          </p>
        </div>
      </section>
    </div>
  </div>
</template>

<style scoped src="./school.css"></style>

<style scoped>
legend {
  display: flex;
  gap: 0.8rem;
  align-items: baseline;
}

.one {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
  align-items: center;
  padding: 0.15rem 0;
}

.one > .check {
  flex: 1 1 16rem;
}

.cant {
  flex-basis: 100%;
  padding-left: 1.8rem;
  color: var(--brick);
}
</style>
