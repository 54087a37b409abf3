<script setup lang="ts">
import { computed, onBeforeUnmount, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useAccount, useLeave } from './account'
import BeadString from './BeadString.vue'
import { schoolIsAt } from './dates'
import FindDialog from './finding/FindDialog.vue'
import { useScripts } from './scripts'
import { useClassNames } from './useClassNames'
import { useSlow } from './useSlow'
import { useStandBy } from './useStandBy'
import { useWeek } from './week'
import { useArrivals } from '@/features/clipboard/useArrivals'
import { useDayAhead } from '@/features/clipboard/useDayAhead'
import { outbox, tapsAreOf } from '@/features/clipboard/useOutbox'
import { t } from '@/app/language'

const route = useRoute()
const router = useRouter()
const { account, classId, current, today, leads, leadsSchool } = useAccount()
const leave = useLeave()

const { day, week } = useWeek()

watch(
  () => account.value?.signedIn?.id,
  (id) => tapsAreOf(id),
  { immediate: true },
)
// Away from here someone else may be signing in.
onBeforeUnmount(() => tapsAreOf(undefined))
useDayAhead()
useArrivals()
const slow = useSlow()
const standBy = useStandBy()
const names = useClassNames()
useScripts(computed(() => names.value.map((child) => child.name)))
watch(current, (own) => own && schoolIsAt(own.locale, own.timeZone), { immediate: true })

const places = computed(() => [
  { name: 'today', label: t('Today') },
  { name: 'year', label: t('Plan') },
  { name: 'class', label: t('Class') },
  { name: 'groups', label: t('Groups') },
  { name: 'clipboard', label: t('Clipboard') },
  { name: 'map', label: t('Map') },
  { name: 'activities', label: t('Activities') },
  { name: 'mats', label: t('Mats') },
  { name: 'sheets', label: t('Sheets') },
  { name: 'cupboard', label: t('Cupboard') },
  ...(leads.value ? [{ name: 'set-up', label: t('Set-up') }] : []),
])
// Pages that stand behind a place, for whoever looks for them by name.
const further = computed(() => [
  { name: 'week', label: t('Week') },
  { name: 'term', label: t('Term') },
  { name: 'coverage', label: t('Coverage of standards') },
  { name: 'look-again', label: t('Look again') },
  { name: 'slips', label: t('Slips') },
  { name: 'baseline', label: t('Baseline checks') },
  { name: 'trail', label: t('Trail') },
  { name: 'records', label: t('Records in and out') },
  { name: 'agreement', label: t('Two adults: agreement') },
  { name: 'groups-ahead', label: t('Groups of the weeks ahead') },
  { name: 'groups-after', label: t('What groups did') },
  { name: 'groups-company', label: t('Turns and company') },
  { name: 'anyone', label: t('Choice time: record anyone') },
  { name: 'jar', label: t('Guess jar') },
  { name: 'set-out', label: t('Set out') },
  { name: 'thoughts', label: t('How Fobble thinks') },
  { name: 'account', label: t('Your account') },
  ...(leadsSchool.value
    ? [
        { name: 'school', label: t('The school: classes and adults') },
        { name: 'school-children', label: t('The school’s children: new year, moves, leaving') },
        { name: 'school-roster', label: t('The office’s list of children') },
      ]
    : []),
  ...(leads.value
    ? [
        { name: 'make-plan', label: t('Make a plan of the year') },
        { name: 'revise-plan', label: t('Re-plan') },
        { name: 'approach', label: t('How this class works') },
        { name: 'class-list', label: t('Import a class list') },
      ]
    : []),
])
const finder = useTemplateRef('finder')
const owner: Record<string, string> = {
  record: 'clipboard',
  anyone: 'clipboard',
  session: 'clipboard',
  child: 'class',
  'look-again': 'class',
  slips: 'class',
  baseline: 'class',
  check: 'class',
  trail: 'class',
  'groups-ahead': 'groups',
  'groups-after': 'groups',
  'groups-company': 'groups',
  records: 'class',
  agreement: 'class',
  week: 'year',
  term: 'year',
  'make-plan': 'year',
  'revise-plan': 'year',
  coverage: 'year',
  carpet: 'today',
  mat: 'mats',
  jar: 'today',
  activity: 'activities',
  'activity-edit': 'activities',
  'set-out': 'cupboard',
  approach: 'set-up',
  'class-list': 'set-up',
  school: 'set-up',
  'school-children': 'set-up',
  'school-roster': 'set-up',
}
const open = computed(() => owner[String(route.name)] ?? String(route.name))

// On a tablet the first places are a bar at the thumb, and the rest opens above it; on a wide screen all of them are the rail.
const FIRST = 5
const inRest = computed(() => places.value.findIndex((p) => p.name === open.value) >= FIRST)
const rest = useTemplateRef('rest')
watch(
  () => route.fullPath,
  () => rest.value?.matches(':popover-open') && rest.value.hidePopover(),
)

function turnTo(event: Event) {
  void router.push({ name: 'today', params: { classId: (event.target as HTMLSelectElement).value } })
}
</script>

<template>
  <div class="shell">
    <a class="skip" href="#page">{{ $t('Skip to the page') }}</a>
    <header class="top">
      <RouterLink class="brand" :to="{ name: 'today', params: { classId } }">{{ $t('Fobble') }}</RouterLink>
      <BeadString v-if="day" :day="day" :today="today" :week="week" />
    </header>
    <nav class="rail" :aria-label="$t('Places')">
      <RouterLink
        v-for="place in places.slice(0, FIRST)"
        :key="place.name"
        :to="{ name: place.name, params: { classId } }"
        class="place"
        :class="{ open: open === place.name }"
        :aria-current="open === place.name ? 'page' : undefined"
      >
        {{ place.label }}
        <span
          v-if="place.name === 'clipboard' && outbox.waiting.value + outbox.aside.value.length"
          class="waits"
          :class="{ stuck: outbox.aside.value.length }"
          >{{ outbox.waiting.value + outbox.aside.value.length }}
          <span class="hidden-words">{{
            outbox.aside.value.length ? $t('to decide on or to send') : $t('to be sent')
          }}</span></span
        >
      </RouterLink>
      <button type="button" class="place more" :class="{ open: inRest }" popovertarget="rest-of-places">
        {{ $t('More') }}
      </button>
      <div id="rest-of-places" ref="rest" class="rest" popover>
        <RouterLink
          v-for="place in places.slice(FIRST)"
          :key="place.name"
          :to="{ name: place.name, params: { classId } }"
          class="place"
          :class="{ open: open === place.name }"
          :aria-current="open === place.name ? 'page' : undefined"
          >{{ place.label }}</RouterLink
        >
        <button type="button" class="place find" @click="finder?.look()">
          {{ $t('Find') }} <span class="soft small">/</span>
        </button>
        <div class="who">
          <select
            v-if="(account?.signedIn?.classes.length ?? 0) > 1"
            class="box"
            :aria-label="$t('Class')"
            :value="classId"
            @change="turnTo"
          >
            <option v-for="c in account?.signedIn?.classes" :key="c.id" :value="c.id">
              {{ c.archived ? $t('{name}, archive', { name: c.name }) : c.name }}
            </option>
          </select>
          <b v-else>{{ current?.name }}</b>
          <RouterLink class="small" :to="{ name: 'account', params: { classId } }">{{
            account?.signedIn?.fullName
          }}</RouterLink>
          <button type="button" class="button plain small" @click="leave">{{ $t('Sign out') }}</button>
          <RouterLink class="small" :to="{ name: 'thoughts', params: { classId } }">{{
            $t('How Fobble thinks')
          }}</RouterLink>
          <span class="small soft">{{ $t('Version {version}', { version: account?.signedIn?.version }) }}</span>
        </div>
      </div>
    </nav>
    <main id="page" tabindex="-1">
      <p v-if="slow" class="slow" role="status">{{ $t('On its way …') }}</p>
      <p v-if="current?.archived" class="archive soft small">
        {{ $t('{name} is in the archive: it can be read, and no more written.', { name: current.name }) }}
      </p>
      <RouterView />
    </main>
    <component :is="standBy" v-if="standBy" />
    <FindDialog ref="finder" :pages="[...places, ...further]" />
  </div>
</template>

<style scoped>
.archive {
  margin: 0;
  padding: 0.4rem 1.5rem;
  border-bottom: 1px solid var(--line);
  background: var(--paper);
}

.shell {
  display: grid;
  grid-template: 'top top' auto 'rail page' 1fr / 128px 1fr;
  min-height: 100vh;
}

.skip {
  position: absolute;
  left: -99rem;
}

.skip:focus {
  left: 0.5rem;
  top: 0.5rem;
  z-index: 10;
  padding: 0.5rem;
  background: var(--card);
}

.top {
  grid-area: top;
  display: grid;
  grid-template-columns: 128px 1fr;
  align-items: start;
  background: var(--paper);
}

.brand {
  padding: 6px 0 0 1.1rem;
  color: var(--ink);
  font: 700 1.75rem/1 var(--child);
  letter-spacing: -0.01em;
  text-decoration: none;
}

.rail {
  grid-area: rail;
  position: sticky;
  top: 0;
  align-self: start;
  display: flex;
  flex-direction: column;
  gap: 2px;
  min-height: calc(100vh - 92px);
  padding: 0.3rem 0 1rem 0.4rem;
}

.place {
  display: flex;
  align-items: center;
  min-height: var(--target);
  padding-left: 0.75rem;
  border-radius: var(--corner) 0 0 var(--corner);
  color: var(--ink);
  font-weight: 700;
  text-decoration: none;
  gap: 0.4rem;
}

.place:hover {
  background: var(--paper-deep);
}

.place.open {
  background: var(--card);
  box-shadow:
    inset 5px 0 0 var(--spruce),
    inset 0 1px 0 var(--line),
    inset 0 -1px 0 var(--line);
}

.find {
  justify-content: flex-start;
  border: 0;
  background: none;
  font: 700 1rem var(--body);
  cursor: pointer;
}

.waits {
  margin-left: auto;
  margin-right: 0.4rem;
  padding: 0 0.45rem;
  border: 1.5px solid var(--ink);
  border-radius: 10px;
  font-size: 0.8rem;
}

.waits.stuck {
  border-color: var(--brick);
  color: var(--brick);
}

.who {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.2rem;
  justify-items: start;
  margin-top: auto;
  padding-inline: 0.75rem 0.5rem;
}

/* A long name of a class is cut, not the rail. */
.who > * {
  min-width: 0;
  max-width: 100%;
}

.who .button {
  padding-left: 0;
}

main {
  position: relative;
  grid-area: page;
  min-width: 0;
  background: var(--card);
  border: solid var(--line);
  border-width: 1px 0 0 1px;
  outline: none;
}

/* Over the page's edge, so that nothing moves for it. */
.slow {
  position: absolute;
  inset: 0 0 auto auto;
  margin: 0;
  padding: 0.1rem 0.8rem;
  border-radius: 0 0 0 var(--corner);
  background: var(--paper-deep);
  font-size: 0.9rem;
}

.more {
  display: none;
}

/* On a wide screen nothing of it opens: it is the lower part of the rail. */
.rest {
  display: contents;
}

@media (max-width: 860px) {
  .shell {
    grid-template: 'top' auto 'page' 1fr / 1fr;
    padding-bottom: var(--bar);
  }

  .top {
    grid-template-columns: 1fr;
  }

  .brand {
    display: none;
  }

  .rail {
    position: fixed;
    z-index: 5;
    inset: auto 0 0;
    flex-direction: row;
    min-height: 0;
    padding: 0;
    border-top: 1px solid var(--line-strong);
    background: var(--paper);
  }

  .rail > .place {
    flex: 1 1 0;
    justify-content: center;
    min-width: 0;
    min-height: calc(var(--bar) - 1px);
    padding: 0 0.2rem;
    border: 0;
    border-radius: 0;
    background: none;
    font: inherit;
    font-weight: 700;
    cursor: pointer;
  }

  .rail > .more {
    display: flex;
  }

  .rail > .place.open {
    background: var(--card);
    box-shadow: inset 0 -5px 0 var(--spruce);
  }

  .waits {
    margin: 0;
  }

  .rest {
    display: none;
    inset: auto 8px calc(var(--bar) + 8px) auto;
    width: 14rem;
    margin: 0;
    padding: 0.5rem 0 0.8rem;
    border: 1.5px solid var(--line-strong);
    border-radius: var(--corner);
    background: var(--card);
    color: var(--ink);
  }

  .rest:popover-open {
    display: grid;
    max-height: calc(100vh - var(--bar) - 16px);
    overflow: auto;
  }

  .rest .place {
    border-radius: 0;
  }

  .who {
    margin-top: 0.6rem;
    padding-top: 0.6rem;
    border-top: 1px solid var(--line);
  }

  main {
    border-left: 0;
  }
}

@media (max-width: 480px) {
  .rail > .place {
    font-size: 0.85rem;
  }
}
</style>
