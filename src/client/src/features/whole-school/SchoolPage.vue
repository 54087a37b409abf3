<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import { computed, ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { dayAndMonth } from '@/app/dates'
import { queryKey } from '@/app/keys'
import { t } from '@/app/language'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'
import { say, sayError } from '@/ui/notices'
import PageError from '@/ui/PageError.vue'
import ShownOnce from '@/ui/ShownOnce.vue'
import AdultsOfClass from './AdultsOfClass.vue'
import HowItRuns from './HowItRuns.vue'
import RosterLine from './RosterLine.vue'
import WhoLooked from './WhoLooked.vue'

/** What whoever leads the school does: classes, adults, and a lost password. */
const queries = useQueryClient()
const { classId, current } = useAccount()
const { data: school, error } = useQuery({
  queryKey: queryKey('school'),
  queryFn: () => take(api.GET('/api/school', {})),
})
const taught = computed(() => school.value?.classes.filter((c) => !c.archivedOn) ?? [])
const archive = computed(() => school.value?.classes.filter((c) => c.archivedOn) ?? [])

async function change(call: Promise<unknown>, done: string) {
  await call
  await queries.invalidateQueries()
  say(done)
}

const none = () => ({ name: '', leadId: null as number | null, like: null as number | null })
const fresh = ref(none())
async function make() {
  const { name } = fresh.value
  await change(
    take(api.POST('/api/school/classes', { body: { ...fresh.value, leadId: fresh.value.leadId ?? 0 } })),
    t('{name} is there. Its lead teacher brings in the children.', { name }),
  )
  fresh.value = none()
}

const names = ref<Record<number, string>>({})
const rename = (room: Schemas['ClassOfSchool']) =>
  change(
    take(
      api.PUT('/api/school/classes/{classId}', {
        params: { path: { classId: room.id } },
        body: { name: names.value[room.id] ?? room.name },
      }),
    ),
    t('The class has its name.'),
  )
const putAway = (room: Schemas['ClassOfSchool'], archived: boolean) =>
  change(
    take(
      api.PUT('/api/school/classes/{classId}/archive', {
        params: { path: { classId: room.id } },
        body: { archived },
      }),
    ),
    archived
      ? t('{name} can be read, and no more written.', { name: room.name })
      : t('{name} is taught again.', { name: room.name }),
  ).catch(sayError)

async function setLead(adult: Schemas['AdultOfSchool'], event: Event) {
  const box = event.target as HTMLInputElement
  try {
    await change(
      take(
        api.PUT('/api/school/leads/{adultId}', {
          params: { path: { adultId: adult.id } },
          body: { leads: box.checked },
        }),
      ),
      box.checked
        ? t('{name} leads the school, too.', { name: adult.fullName })
        : t('{name} leads the school no more.', { name: adult.fullName }),
    )
  } catch (problem) {
    sayError(problem)
    box.checked = adult.leadsSchool
  }
}

// Read once it is asked for.
const looked = ref(false)

// A link to hand over: shown until the next one is.
const link = ref<{ words: string; address: string }>()
async function makeLink(adult: Schemas['AdultOfSchool']) {
  try {
    const { address } = await take(
      api.POST('/api/school/adults/{adultId}/password-link', { params: { path: { adultId: adult.id } } }),
    )
    link.value = {
      words: t('For {who}, once and within a day. Hand it over yourself; whoever has it can come in.', {
        who: adult.fullName,
      }),
      address: `${location.origin}${address}`,
    }
  } catch (problem) {
    sayError(problem)
  }
}

function invited({ who, mailed, address }: Schemas['Invitation'] & { who: string }) {
  link.value = address
    ? {
        words: t('For {who}, once and within three days. Hand it over yourself; whoever has it can come in.', { who }),
        address: `${location.origin}${address}`,
      }
    : undefined
  say(mailed ? t('A mail is on its way to {who}.', { who }) : t('{who} belongs to the class now.', { who }))
}
async function inviteAgain(adult: Schemas['AdultOfSchool']) {
  try {
    const invitation = await take(
      api.POST('/api/school/adults/{adultId}/invitation', { params: { path: { adultId: adult.id } } }),
    )
    invited({ who: adult.fullName, ...invitation })
    await queries.invalidateQueries()
  } catch (problem) {
    sayError(problem)
  }
}
const takeOutSecondStep = (adult: Schemas['AdultOfSchool']) =>
  change(
    take(api.DELETE('/api/school/adults/{adultId}/second-step', { params: { path: { adultId: adult.id } } })),
    t('{who} comes in with the password alone.', { who: adult.fullName }),
  ).catch(sayError)

const childrenOf = ({ children }: Schemas['ClassOfSchool']) =>
  children === 0 ? t('no children yet') : children === 1 ? t('one child') : t('{count} children', { count: children })
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ school?.name ?? current?.school ?? '\u00a0' }}</h1>
      <span class="soft">{{ $t('classes, adults, and who answers for what') }}</span>
    </div>
    <PageError v-if="error" :error="error" />
    <div v-if="school" class="parts">
      <section>
        <details
          v-for="room in taught"
          :key="room.id"
          class="ruled fold"
          :open="room.id === classId || taught.length === 1"
        >
          <summary>
            <h2>{{ room.name }}</h2>
            <span class="soft small">{{ childrenOf(room) }}</span>
            <span class="soft small" data-quoted>{{ room.adults.map((a) => a.fullName).join(', ') }}</span>
          </summary>
          <AdultsOfClass :room="room" @invited="invited" />
          <AskForm class="beside line" :send="() => rename(room)">
            <FaultyField name="name"
              ><input
                type="text"
                :value="names[room.id] ?? room.name"
                maxlength="60"
                :aria-label="$t('Name of {name}', { name: room.name })"
                required
                @input="names[room.id] = ($event.target as HTMLInputElement).value"
            /></FaultyField>
            <button class="button">{{ $t('Rename') }}</button>
            <button type="button" class="button plain" @click="putAway(room, true)">
              {{ $t('Into the archive') }}
            </button>
          </AskForm>
        </details>

        <p class="ruled">
          <RouterLink
            class="button"
            :to="classId ? { name: 'school-children', params: { classId } } : { name: 'school-door-children' }"
            >{{ $t('A new year, a child that moves or leaves') }}</RouterLink
          >
        </p>
        <RosterLine />

        <div class="ruled">
          <h2>{{ $t('One more class') }}</h2>
          <AskForm class="beside line" :send="make">
            <FaultyField name="name" :label="$t('Name')"
              ><input v-model="fresh.name" type="text" maxlength="60" required
            /></FaultyField>
            <FaultyField name="leadId" :label="$t('Lead teacher')"
              ><select v-model="fresh.leadId" class="box" required>
                <option :value="null" disabled>{{ $t('Who') }}</option>
                <option v-for="a in school.adults" :key="a.id" :value="a.id">{{ a.fullName }}</option>
              </select></FaultyField
            >
            <FaultyField name="like" :label="$t('Begins like')"
              ><select v-model="fresh.like" class="box">
                <option :value="null">{{ $t('as is usual') }}</option>
                <option v-for="c in school.classes" :key="c.id" :value="c.id">{{ c.name }}</option>
              </select></FaultyField
            >
            <button class="button main">{{ $t('Make the class') }}</button>
          </AskForm>
          <p class="soft small">
            {{
              $t(
                'Like another class: its timetable, and how it works where practitioners disagree. No child goes along.',
              )
            }}
          </p>
        </div>

        <div v-if="archive.length" class="ruled">
          <h2>{{ $t('Archive') }}</h2>
          <p v-for="room in archive" :key="room.id">
            <b>{{ room.name }}</b>
            <span class="soft small">{{
              ' ' + $t('{children}, since {day}', { children: childrenOf(room), day: dayAndMonth(room.archivedOn!) })
            }}</span>
            {{ ' '
            }}<button
              type="button"
              class="button plain small"
              :aria-label="$t('Teach {name} again', { name: room.name })"
              @click="putAway(room, false)"
            >
              {{ $t('Teach it again') }}
            </button>
          </p>
        </div>
      </section>

      <section class="ruled">
        <h2>{{ $t('Adults') }}</h2>
        <DataTable :value="school.adults" data-key="id">
          <Column field="fullName" :header="$t('Name')" sortable>
            <template #body="{ data }"
              >{{ data.fullName }}<br /><span class="soft small" data-quoted>{{ data.email }}</span>
              <span v-if="data.invited" class="small yet">{{
                data.mailFault
                  ? $t('The mail that invites them does not go: {fault}', { fault: data.mailFault })
                  : $t('Invited, has not come in yet.')
              }}</span></template
            >
          </Column>
          <Column field="leadsSchool" :header="$t('Leads the school')">
            <template #body="{ data }"
              ><label class="check"
                ><input
                  type="checkbox"
                  :checked="data.leadsSchool"
                  :aria-label="$t('{name} leads the school', { name: data.fullName })"
                  @change="setLead(data, $event)" /></label
            ></template>
          </Column>
          <Column>
            <template #body="{ data }">
              <button
                v-if="data.invited"
                type="button"
                class="button plain small"
                :aria-label="$t('Invite {name} again', { name: data.fullName })"
                @click="inviteAgain(data)"
              >
                {{ $t('Invite again') }}
              </button>
              <button
                v-else
                type="button"
                class="button plain small"
                :aria-label="$t('A new password for {name}', { name: data.fullName })"
                @click="makeLink(data)"
              >
                {{ $t('Lost password') }}
              </button>
              <button
                v-if="data.secondStep"
                type="button"
                class="button plain small"
                :aria-label="$t('Take out the second step of {name}', { name: data.fullName })"
                @click="takeOutSecondStep(data)"
              >
                {{ $t('Lost phone') }}
              </button>
            </template>
          </Column>
        </DataTable>
        <ShownOnce v-if="link" :words="link.words" :what="link.address" />
        <p class="soft small">
          {{
            $t(
              'Whoever leads the school sets its terms, closures and map, makes classes, and says who belongs to them.',
            )
          }}
        </p>
        <details class="ruled fold" @toggle="looked = true">
          <summary>
            <h2>{{ $t('Who looked, who changed what') }}</h2>
          </summary>
          <WhoLooked v-if="looked" />
        </details>
        <HowItRuns />
      </section>
    </div>
  </div>
</template>

<style scoped src="./school.css"></style>

<style scoped>
.parts .p-datatable .button {
  white-space: nowrap;
}

.yet {
  display: block;
}
</style>
