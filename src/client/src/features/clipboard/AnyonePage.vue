<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { supports, type SupportValue } from '@/ui/marks'
import HowStrip from './HowStrip.vue'
import { offered, searchSkills } from './search'
import ShownWith from './ShownWith.vue'
import TapStatus from './TapStatus.vue'
import { outbox } from './useOutbox'
import { useTaps } from './useTaps'
import PageError from '@/ui/PageError.vue'

/** Choice time: any child, any skill. A tap for the child, a tap for the skill, a tap for how it went. */
const { classId } = useAccount()
const { data: view, error } = useQuery({
  queryKey: queryKey('anyone', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/clipboard', { params: { path: { classId: classId.value } } })),
  staleTime: 60_000,
})
const { mine, tick, latest, record: tap, undo, amend, hold, photo } = useTaps()

const childId = ref<number>()
const skillId = ref<string>()
const shownWith = ref<Schemas['Representation']>()
const search = ref('')
const lately = ref<string[]>([])
const settingOf = ref<'Choice' | 'OneToOne' | 'Carpet'>('Choice')
const child = computed(() => view.value?.children.find((c) => c.id === childId.value))
const bySkill = computed(() => new Map((view.value?.skills ?? []).map((s) => [s.id, s])))
const skill = computed(() => (skillId.value ? bySkill.value.get(skillId.value) : undefined))
const way = computed({
  get: () => shownWith.value ?? skill.value?.shownIn[0] ?? 'Objects',
  set: (chosen) => (shownWith.value = chosen),
})
const offer = computed(() =>
  search.value
    ? searchSkills(view.value?.skills ?? [], search.value).map((s) => ({ skill: s.id, why: '' }))
    : child.value
      ? offered(child.value.due, view.value?.playing ?? [], lately.value).filter((o) => bySkill.value.has(o.skill))
      : [],
)

const codes = ref<HTMLElement>()
const skills = ref<HTMLElement>()
async function pickChild(id: number) {
  childId.value = id
  skillId.value = undefined
  search.value = ''
  await nextTick()
  skills.value?.scrollIntoView({ block: 'nearest' })
}
async function pickSkill(id: string) {
  skillId.value = id
  shownWith.value = undefined
  await nextTick()
  codes.value?.querySelector<HTMLElement>('button')?.focus({ preventScroll: true })
}
function record(support: SupportValue) {
  if (!child.value || !skill.value) return
  tap({
    childId: child.value.id,
    childName: child.value.name,
    skill: skill.value,
    setting: settingOf.value,
    support,
    representation: way.value,
    numbers: null,
    sessionId: null,
  })
  lately.value = [skill.value.id, ...lately.value.filter((s) => s !== skill.value!.id)].slice(0, 4)
}
function keys(event: KeyboardEvent) {
  const typing = (event.target as HTMLElement).matches('input, select, textarea')
  const support = supports.find((s) => s.key === event.key)
  if (support && !typing && !event.ctrlKey && !event.metaKey && !event.altKey) record(support.value)
}
useEventListener(window, 'keydown', keys)
const count = (id: number) => mine.value[id]?.length ?? 0
const all = computed(() => Object.values(mine.value).reduce((sum, m) => sum + m.length, 0))
const open = computed(() => {
  const whose = view.value?.children.find((c) => c.id === latest.value?.childId)
  const tapped = latest.value && outbox.taps.value.find((t) => t.body.id === latest.value!.marked.id)
  const about = tapped && bySkill.value.get(tapped.body.skill)
  return whose && about && latest.value ? { child: whose, skill: about, marked: latest.value.marked } : undefined
})
const last = computed(() => (child.value ? mine.value[child.value.id]?.at(-1) : undefined))
const canUndo = computed(() => last.value?.until !== undefined && last.value.until > tick.value)
</script>

<template>
  <div class="page anyone">
    <PageError v-if="error" :error="error" />
    <h1 v-if="!view && !error">{{ $t('Anyone, anything') }}</h1>
    <template v-if="view">
      <div class="page-head">
        <div>
          <span class="soft">{{
            view.playingName
              ? $t('At choice time: {playingName}', { playingName: view.playingName })
              : $t('Choice time')
          }}</span>
          <h1>{{ $t('Anyone, anything') }}</h1>
        </div>
        <div class="end">
          <select v-model="settingOf" class="box" :aria-label="$t('Seen at')">
            <option value="Choice">{{ $t('at choice time') }}</option>
            <option value="OneToOne">{{ $t('one to one') }}</option>
            <option value="Carpet">{{ $t('on the carpet') }}</option>
          </select>
        </div>
      </div>
      <div class="status" role="status">
        <b>{{ all }}</b> {{ $t('recorded now') }} <TapStatus />
      </div>

      <div class="two">
        <section :aria-label="$t('Children')" class="children">
          <button
            v-for="c in view.children"
            :key="c.id"
            type="button"
            class="child said"
            :class="{ on: c.id === childId, away: c.away }"
            :aria-pressed="c.id === childId"
            @click="pickChild(c.id)"
          >
            {{ c.name }}<span v-if="count(c.id)" class="small n">{{ count(c.id) }}</span>
          </button>
        </section>

        <section v-if="child" ref="skills" class="skills" :aria-label="$t('What {name} did', { name: child.name })">
          <input
            v-model="search"
            type="text"
            :placeholder="$t('Search a skill: a few letters')"
            :aria-label="$t('Search a skill')"
          />
          <button
            v-for="o in offer"
            :key="o.skill"
            type="button"
            class="skill"
            :class="{ on: o.skill === skillId }"
            :aria-pressed="o.skill === skillId"
            @click="pickSkill(o.skill)"
          >
            <span class="said">{{ bySkill.get(o.skill)!.short }}</span>
            <span class="small why">{{ o.why }}</span>
          </button>
          <p v-if="search && !offer.length" class="soft">{{ $t('Nothing begins like that.') }}</p>
        </section>
        <p v-else class="soft said hint">{{ $t('Tap a child.') }}</p>
      </div>

      <div class="foot">
        <div v-if="child && skill" ref="codes" class="codes">
          <span class="can said"
            ><b>{{ child.name }}</b> · {{ skill.iCan }}</span
          >
          <ShownWith v-model="way" :ways="skill.shownIn" />
          <span class="taps">
            <button
              v-for="s in supports"
              :key="s.value"
              type="button"
              class="code"
              :class="{ on: last?.support === s.value && canUndo }"
              @click="record(s.value)"
            >
              {{ s.label }}
            </button>
            <button v-if="canUndo" type="button" class="code undo" @click="undo(child.id, last!.id)">
              {{ $t('Undo') }}
            </button>
          </span>
        </div>
        <HowStrip
          v-if="open"
          :key="open.marked.id"
          :name="open.child.name"
          :marked="open.marked"
          :slips="open.skill.slips"
          :strategies="open.skill.strategies"
          :photos="open.child.photosAllowed"
          @amend="amend(open.child.id, open.marked.id, $event)"
          @writing="hold(open.child.id, open.marked.id)"
          @photo="photo(open.child.id, open.marked.id, $event)"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.anyone {
  display: flex;
  flex-direction: column;
  min-height: calc(100vh - 141px);
}

.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 1.2rem;
  margin-top: 0.5rem;
}

.children {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(8.2rem, 1fr));
  gap: 6px;
  align-content: start;
}

.child,
.skill,
.code {
  min-height: var(--target);
  border: 1.5px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}

.child {
  position: relative;
  min-height: 52px;
  padding: 0 0.7rem;
  font: 400 1.15rem var(--child);
  text-align: left;
}

.child.away {
  border-style: dashed;
  color: var(--ink-soft);
}

.n {
  position: absolute;
  top: 3px;
  right: 6px;
  font: 700 0.85rem var(--body);
}

.on {
  border-color: var(--spruce);
  background: var(--spruce);
  color: #fffcf5;
}

.skills {
  display: grid;
  gap: 6px;
  align-content: start;
}

.skills input {
  min-height: var(--target);
}

.skill {
  display: flex;
  align-items: baseline;
  gap: 0.6rem;
  padding: 0.5rem 0.8rem;
  text-align: left;
}

.skill .said {
  font-size: 1.15rem;
}

.why {
  margin-left: auto;
  white-space: nowrap;
}

.hint {
  font-size: 1.2rem;
}

.foot {
  position: sticky;
  bottom: var(--bar);
  margin: auto -1.5rem -2.5rem;
}

.foot :deep(.strip) {
  position: static;
  margin: 0;
}

.codes {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 1rem;
  padding: 0.7rem 1.5rem;
  border-top: 1.5px solid var(--ink);
  background: var(--card);
}

.can {
  flex: 1 1 100%;
  font-size: 1.1rem;
}

.way {
  padding: 0 0.7rem;
}

.taps {
  display: flex;
  flex: 1;
  gap: 6px;
}

.code {
  flex: 1;
  min-height: 64px;
  font-weight: 700;
}

.undo {
  border-style: dashed;
}

@media (max-width: 620px) {
  .two {
    grid-template-columns: 1fr;
  }

  .children {
    grid-template-columns: repeat(3, 1fr);
  }

  .child {
    padding: 0 0.4rem;
    font-size: 1.02rem;
  }

  .taps {
    flex: 1 1 100%;
  }
}
</style>
