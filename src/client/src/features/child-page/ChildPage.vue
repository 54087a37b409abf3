<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import ConfirmDialog from 'primevue/confirmdialog'
import { useConfirm } from 'primevue/useconfirm'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { dayAndMonth, fullDay } from '@/app/dates'
import { useClassNames } from '@/app/useClassNames'
import ChildErasing from './ChildErasing.vue'
import ChildNaming from './ChildNaming.vue'
import CellDrawer from '@/ui/CellDrawer.vue'
import ErrorLine from '@/ui/ErrorLine.vue'
import MarkFrame from '@/ui/MarkFrame.vue'
import { markWords, representationLabel } from '@/ui/marks'
import { say, sayError } from '@/ui/notices'
import SeenOnce from '@/ui/SeenOnce.vue'
import WeekBeads from './WeekBeads.vue'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'

/** One child: what is next first, then how it got there, and at the foot everything that was seen. */
const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const { classId, leads, records } = useAccount()
const childId = computed(() => Number(route.params.childId))
const path = computed(() => ({ classId: classId.value, childId: childId.value }))
// The name stands at once; the rest follows.
const names = useClassNames()
const { data: child, error } = useQuery({
  queryKey: queryKey('child', classId, childId),
  queryFn: () => take(api.GET('/api/classes/{classId}/children/{childId}', { params: { path: path.value } })),
})

const NEXT = 3
const WEEKS = 3
const SECURE = 4
const showAllNext = ref(false)
const skill = computed(() => (typeof route.query.skill === 'string' ? route.query.skill : undefined))
const openSkill = (id: string) => router.push({ query: { skill: id } })

const more = ref<Schemas['SeenOnce'][]>([])
watch([childId, child], () => (more.value = []))
watch(childId, () => (showAllNext.value = false))
const seen = computed(() => [...(child.value?.seen ?? []), ...more.value])
async function showMore() {
  try {
    const next = await take(
      api.GET('/api/classes/{classId}/children/{childId}/observations', {
        params: { path: path.value, query: { skip: seen.value.length } },
      }),
    )
    more.value = [...more.value, ...next]
  } catch (problem) {
    sayError(problem)
  }
}

const secured = computed(() =>
  (child.value?.weeks ?? [])
    .filter((week) => week.secured.length)
    .slice(-WEEKS)
    .reverse(),
)

const bonds = computed(() => {
  const wholes = new Map<number, Schemas['ChildBond'][]>()
  for (const bond of child.value?.bonds ?? []) wholes.set(bond.whole, [...(wholes.get(bond.whole) ?? []), bond])
  return [...wholes].map(([whole, pairs]) => ({ whole, pairs }))
})
const most = computed(() => Math.max(1, ...(child.value?.shown ?? []).map((s) => s.seen)))

const confirm = useConfirm()
const sure = (header: string, message: string) =>
  new Promise<boolean>((answer) =>
    confirm.require({
      header,
      message,
      acceptLabel: t('Delete them'),
      rejectProps: { label: t('Leave them'), outlined: true },
      accept: () => answer(true),
      reject: () => answer(false),
      onHide: () => answer(false),
    }),
  )
async function allowPhotos(allowed: boolean) {
  if (
    !allowed &&
    !(await sure(t('No more photos?'), t('Those that were taken of what this child made are then deleted.')))
  )
    return queries.invalidateQueries({ queryKey: queryKey('child') })
  try {
    await take(
      api.PUT('/api/classes/{classId}/children/{childId}/photos-allowed', {
        params: { path: path.value },
        body: { allowed },
      }),
    )
    say(allowed ? t('Photos of what the child makes may be taken.') : t('No photos; those taken are deleted.'))
  } catch (problem) {
    sayError(problem)
  }
  await queries.invalidateQueries()
}
// Asked for once it is opened.
const naming = ref(false)
const withPhotos = ref(false)
const familyPage = computed(
  () =>
    `/api/classes/${classId.value}/children/${childId.value}/family-page${withPhotos.value && child.value?.photosAllowed ? '?photos=true' : ''}`,
)
</script>

<template>
  <div class="page">
    <PageError v-if="error" :error="error" />
    <h1 v-if="!child && !error" class="said">{{ names.find((n) => n.id === childId)?.name ?? '…' }}</h1>
    <template v-if="child">
      <div class="page-head">
        <div>
          <RouterLink class="small" :to="{ name: 'class', params: { classId } }">{{ $t('The class') }}</RouterLink>
          <h1 class="said">{{ child.name }}</h1>
        </div>
        <div class="end">
          <template v-if="leads">
            <label v-if="child.photosAllowed" class="check small"
              ><input v-model="withPhotos" type="checkbox" /> {{ $t('with photos') }}</label
            >
            <a class="button" :href="familyPage" target="_blank">{{ $t('Page for the family') }}</a>
            <a class="button plain" :href="`/api/classes/${classId}/children/${childId}/file`" download>{{
              $t('File to hand on')
            }}</a>
          </template>
        </div>
      </div>

      <section class="year" :aria-label="$t('The year so far')">
        <WeekBeads :weeks="child.weeks" />
        <p class="small soft">
          {{
            child.seenInAll === 0
              ? $t('Not seen yet.')
              : child.seenInAll === 1
                ? $t('Seen once.')
                : $t('Seen {count} times in all.', { count: child.seenInAll })
          }}
          {{
            child.away.length === 0
              ? $t('Never away this year.')
              : $t('Away {count} of {schoolDays} school days.', {
                  count: child.away.length,
                  schoolDays: child.schoolDays,
                })
          }}
          <template v-if="child.away.length">{{ $t('Last on {day}.', { day: dayAndMonth(child.away[0]!) }) }}</template>
          <template v-if="child.checkId">
            {{ ' '
            }}<RouterLink :to="{ name: 'check', params: { classId, checkId: child.checkId } }">
              {{
                child.checkedAt
                  ? $t('Baseline check of {day}', { day: dayAndMonth(child.checkedAt.slice(0, 10)) })
                  : $t('Baseline check under way')
              }}
            </RouterLink>
          </template>
        </p>
      </section>

      <div class="columns">
        <section class="ruled">
          <h2>{{ $t('Next') }}</h2>
          <ol class="next">
            <li v-for="step in showAllNext ? child.next : child.next.slice(0, NEXT)" :key="step.skill">
              <button type="button" class="open" @click="openSkill(step.skill)">
                <MarkFrame :strength="step.strength" :look-again="step.lookAgain" ready silent />
                <b class="said">{{ step.short }}</b>
                <span v-if="step.guess" class="small soft">{{ $t('a guess to confirm') }}</span>
              </button>
              <div class="small soft">{{ step.because }}</div>
              <div v-if="step.activityId" class="small">
                {{ $t('Do:') }}
                <RouterLink
                  :to="{ name: 'activity', params: { classId, id: step.activityId }, query: { skill: step.skill } }"
                  >{{ step.activity }}</RouterLink
                >
              </div>
            </li>
          </ol>
          <button
            v-if="child.next.length > NEXT && !showAllNext"
            type="button"
            class="button plain small"
            @click="showAllNext = true"
          >
            {{ $t('{a} more that could be next', { a: child.next.length - NEXT }) }}
          </button>
          <template v-if="secured.length">
            <h3 class="lately">{{ $t('Secure of late') }}</h3>
            <p v-for="week in secured" :key="week.monday" class="small">
              <span class="soft">{{ $t('Week of {day}:', { day: dayAndMonth(week.monday) }) }}</span>
              {{ week.secured.join(', ') }}
            </p>
          </template>
        </section>

        <section class="ruled">
          <h2>{{ $t('Strands') }}</h2>
          <details v-for="strand in child.strands" :key="strand.id" class="strand fold">
            <summary>
              <b>{{ strand.name }}</b>
              <span class="small soft">{{
                $t('{count} of {count2} secure', {
                  count: strand.skills.filter((s) => s.strength >= SECURE).length,
                  count2: strand.skills.length,
                })
              }}</span>
              <span class="beads" aria-hidden="true">
                <i
                  v-for="s in strand.skills"
                  :key="s.id"
                  :class="{ has: s.strength >= SECURE, part: s.strength > 0 && s.strength < SECURE, ready: s.ready }"
                />
              </span>
            </summary>
            <button
              v-for="s in strand.skills"
              :key="s.id"
              type="button"
              class="skill"
              :class="{ faint: s.strength === 0 && !s.ready && !s.inferred }"
              :aria-label="`${s.short}: ${markWords(s.strength, s.lookAgain, s.ready, s.inferred)}`"
              @click="openSkill(s.id)"
            >
              <MarkFrame
                :strength="s.strength"
                :look-again="s.lookAgain"
                :ready="s.ready"
                :inferred="s.inferred"
                silent
              />
              {{ s.short }}
              <span v-if="s.strength >= 4 && s.since" class="small soft">{{
                $t('since {day}', { day: dayAndMonth(s.since) })
              }}</span>
            </button>
          </details>
          <p class="small soft">
            {{ $t('A bead a skill: filled is secure, half begun, ringed ready. Open a strand to see which.') }}
          </p>
        </section>
      </div>

      <details class="ruled fold">
        <summary>
          <h2>{{ $t('Everything seen') }}</h2>
          <span class="soft">{{ child.seenInAll }}</span>
        </summary>
        <SeenOnce v-for="once in seen" :key="once.id" :once="once" skill />
        <button v-if="seen.length < child.seenInAll" type="button" class="button" @click="showMore">
          {{ $t('Show earlier ones ({a})', { a: child.seenInAll - seen.length }) }}
        </button>
        <p v-if="!seen.length" class="soft">
          {{ $t('Nothing yet.') }}
          <RouterLink v-if="records" :to="{ name: 'baseline', params: { classId } }">{{
            $t('Begin a baseline check')
          }}</RouterLink>
        </p>
      </details>

      <details class="ruled fold">
        <summary>
          <h2>{{ $t('Slips that come again') }}</h2>
          <span class="soft">{{ child.slips.length || $t('none') }}</span>
        </summary>
        <p v-if="!child.slips.length" class="soft">{{ $t('None twice in the last eight weeks.') }}</p>
        <ul v-else class="plain">
          <li v-for="slip in child.slips" :key="slip.skill + slip.slip">
            <button type="button" class="open" @click="openSkill(slip.skill)">
              <b>{{ slip.slip }}</b> <span class="said">{{ slip.short }}</span>
            </button>
            <span class="small soft">{{
              ' ' + $t('{times} times, last on {day}', { times: slip.times, day: dayAndMonth(slip.last) })
            }}</span>
          </li>
        </ul>
      </details>

      <details class="ruled fold">
        <summary>
          <h2>{{ $t('Groups so far') }}</h2>
          <span class="soft">{{ child.groups.length || $t('none') }}</span>
        </summary>
        <p v-if="!child.groups.length" class="soft">{{ $t('No group yet.') }}</p>
        <ul v-else class="plain">
          <li v-for="group in child.groups" :key="group.sessionId">
            <RouterLink :to="{ name: 'session', params: { classId, sessionId: group.sessionId } }">{{
              fullDay(group.day)
            }}</RouterLink>: <span class="said">{{ group.skill }}</span>
            <span class="small soft"
              >{{ ' ' + $t('with') }} <span class="said">{{ group.with.join(', ') }}</span></span
            >
          </li>
        </ul>
      </details>

      <details class="ruled fold">
        <summary>
          <h2>{{ $t('Shown with, bonds{a}', { a: child.jars.length ? $t(', guess jar') : '' }) }}</h2>
        </summary>
        <div class="columns">
          <div>
            <div class="shown">
              <template v-for="s in child.shown" :key="s.representation">
                <span>{{ representationLabel(s.representation) }}</span>
                <span class="bar">
                  <i class="all" :style="{ width: `${(100 * s.seen) / most}%` }" />
                  <i class="alone" :style="{ width: `${(100 * s.alone) / most}%` }" />
                </span>
                <span class="small soft">{{
                  s.seen ? $t('alone {alone} of {seen}', { alone: s.alone, seen: s.seen }) : $t('not seen')
                }}</span>
              </template>
            </div>
          </div>
          <div>
            <p v-if="!bonds.length" class="soft">{{ $t('No bond was asked for yet.') }}</p>
            <table v-else class="bonds">
              <tbody>
                <tr v-for="row in bonds" :key="row.whole">
                  <th scope="row" class="said">{{ row.whole }}</th>
                  <td>
                    <span
                      v-for="bond in row.pairs"
                      :key="bond.part"
                      v-tooltip.top="
                        $t('{a} on {day}', { a: bond.known ? $t('known') : $t('missed'), day: dayAndMonth(bond.last) })
                      "
                      class="bond said"
                      :class="{ known: bond.known }"
                      >{{ bond.part }} + {{ bond.other
                      }}<span class="hidden-words">{{
                        bond.known ? ' ' + $t('known') : ' ' + $t('missed')
                      }}</span></span
                    >
                  </td>
                </tr>
              </tbody>
            </table>
            <p v-if="bonds.length" class="small soft">{{ $t('Filled: known when last asked. Outline: missed.') }}</p>
            <template v-if="child.jars.length">
              <ErrorLine :errors="child.jars.map((j) => j.error)" />
              <p class="small soft">{{ $t('Over the line: too many; under it: too few.') }}</p>
            </template>
          </div>
        </div>
      </details>

      <details v-if="leads" class="ruled fold" @toggle="naming ||= ($event.target as HTMLDetailsElement).open">
        <summary>
          <h2>{{ $t('Name and birthday') }}</h2>
        </summary>
        <ChildNaming v-if="naming" :class-id="classId" :child-id="childId" :shares-name="child.sharesName" />
      </details>

      <details v-if="leads" class="ruled fold">
        <summary>
          <h2>{{ $t('Photos') }}</h2>
        </summary>
        <label class="check"
          ><input
            type="checkbox"
            :checked="child.photosAllowed"
            @change="allowPhotos(($event.target as HTMLInputElement).checked)"
          />
          {{ $t('The family agrees to photos of what {name} makes', { name: child.name }) }}</label
        >
        <p class="small soft">
          {{ $t('Of pages and things only, never of a child. Follow your school’s rules on photos.') }}
        </p>
      </details>

      <details v-if="leads" class="ruled fold">
        <summary>
          <h2>{{ $t('Has left: erase') }}</h2>
        </summary>
        <ChildErasing :class-id="classId" :child-id="childId" :name="child.name" />
      </details>
    </template>
    <ConfirmDialog :closable="false" />
    <CellDrawer v-if="skill" :child-id="childId" :skill-id="skill" @close="router.push({ query: {} })" />
  </div>
</template>

<style scoped>
.year {
  margin-bottom: 1rem;
}

.columns {
  display: grid;
  grid-template-columns: 3fr 2fr;
  gap: 0 2.2rem;
}

section.ruled {
  margin-bottom: 1.3rem;
}

.strand summary b {
  flex: 0 0 13rem;
}

.beads {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  flex: 1 0 100%;
  margin-bottom: 0.4rem;
}

.beads i {
  width: 11px;
  height: 11px;
  border: 1.5px solid var(--line-strong);
  border-radius: 50%;
}

.beads .ready {
  border-color: var(--spruce);
  border-width: 2.5px;
}

.beads .part {
  border-color: var(--spruce);
  background: linear-gradient(to right, var(--spruce) 50%, transparent 50%);
}

.beads .has {
  border-color: var(--spruce);
  background: var(--spruce);
}

.lately {
  margin: 0.9rem 0 0.2rem;
}

.next {
  padding: 0;
  list-style: none;
}

.next li {
  padding: 0.35rem 0;
  border-bottom: 1px solid var(--line);
}

.open,
.skill {
  border: 0;
  padding: 0;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}

.open {
  min-height: 30px;
}

.open b.said {
  margin: 0 0.4rem;
  font-size: 1.1rem;
}

.open:hover,
.skill:hover {
  text-decoration: underline;
}

.plain {
  padding: 0;
  list-style: none;
}

.shown {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 0.35rem 0.7rem;
  align-items: center;
}

.bar {
  position: relative;
  height: 14px;
  border: 1.5px solid var(--line-strong);
  border-radius: 3px;
}

.bar i {
  position: absolute;
  inset: 0 auto 0 0;
}

.all {
  background: repeating-linear-gradient(-45deg, var(--line-strong) 0 1.5px, transparent 1.5px 5px);
}

.alone {
  background: var(--ink);
}

.bonds th {
  padding-right: 0.8rem;
  font-size: 1.2rem;
}

.bond {
  display: inline-block;
  margin: 0.15rem 0.3rem 0.15rem 0;
  padding: 0.1rem 0.5rem;
  border: 1.5px solid var(--ink);
  border-radius: 12px;
}

.bond.known {
  background: var(--ink);
  color: #fffcf5;
}

.skill {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  width: 100%;
  min-height: 28px;
}

.skill.faint {
  color: var(--ink-soft);
}

@media (max-width: 860px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
