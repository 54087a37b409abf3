<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { isOneOf, queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { dayAndMonth } from '@/app/dates'
import { newId } from '@/ui/newId'
import PictureView from '@/mats/PictureView.vue'
import CautionList from '@/ui/CautionList.vue'
import { supportLabel, supports, type SupportValue } from '@/ui/marks'
import { sayError } from '@/ui/notices'
import PathStrings from './PathStrings.vue'
import PageError from '@/ui/PageError.vue'

/** One check: a question with all it takes, two taps an answer, and how far the path has become clear. */
const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const { classId, records } = useAccount()
const checkId = computed(() => Number(route.params.checkId))
const path = computed(() => ({ classId: classId.value, checkId: checkId.value }))
const { data: check, error } = useQuery({
  queryKey: queryKey('check', classId, checkId),
  queryFn: () => take(api.GET('/api/classes/{classId}/baseline/{checkId}', { params: { path: path.value } })),
})
const question = computed(() => (check.value?.endedAt ? null : check.value?.question))
const then = computed(() =>
  String(route.query.then ?? '')
    .split(',')
    .filter(Boolean),
)

const support = ref<SupportValue>()
const slip = ref<string>()
const shownWith = ref<Schemas['Representation']>()
const second = ref(false)
const busy = ref(false)
const id = ref(newId())
watch(
  () => [checkId.value, question.value?.skill],
  () => {
    support.value = undefined
    slip.value = undefined
    shownWith.value = undefined
    second.value = false
    id.value = newId()
  },
)
const item = computed(() => question.value?.items[second.value ? 1 : 0] ?? question.value?.items[0])

async function change(call: Promise<Schemas['CheckView']>) {
  busy.value = true
  try {
    queries.setQueryData(queryKey('check', classId.value, checkId.value), await call)
    // The grid and the child's page are to know of it when they are next looked at.
    void queries.invalidateQueries({ predicate: (q) => !isOneOf(q, 'check', 'account') })
  } catch (problem) {
    sayError(problem)
  } finally {
    busy.value = false
  }
}
const nextButton = ref<HTMLButtonElement>()
async function choose(value: SupportValue) {
  support.value = value
  await nextTick()
  nextButton.value?.focus({ preventScroll: true })
}
function answer() {
  if (!question.value || !support.value || busy.value) return
  void change(
    take(
      api.POST('/api/classes/{classId}/baseline/{checkId}/answers', {
        params: { path: path.value },
        body: {
          id: id.value,
          skill: question.value.skill,
          at: new Date().toISOString(),
          support: support.value,
          representation: shownWith.value ?? question.value.shownIn[0]!,
          numbers: item.value?.key ?? null,
          slip: slip.value ?? null,
        },
      }),
    ),
  )
}
const end = () =>
  change(take(api.POST('/api/classes/{classId}/baseline/{checkId}/end', { params: { path: path.value } })))

const chosen = ref<string>()
const about = computed(() => check.value?.path.find((p) => p.id === chosen.value))
const know = (has: boolean | null) =>
  change(
    take(
      api.PUT('/api/classes/{classId}/baseline/{checkId}/skills/{skillId}', {
        params: { path: { ...path.value, skillId: chosen.value! } },
        body: { has },
      }),
    ),
  )
const percent = computed(() => check.value?.surePercent ?? 0)
const goOn = () =>
  router.push({
    name: 'check',
    params: { classId: classId.value, checkId: then.value[0] },
    query: then.value.length > 1 ? { then: then.value.slice(1).join(',') } : {},
  })

function keys(event: KeyboardEvent) {
  if (
    event.ctrlKey ||
    event.metaKey ||
    event.altKey ||
    (event.target as HTMLElement).matches('input, select, textarea')
  )
    return
  const pressed = supports.find((s) => s.key === event.key)
  if (pressed && question.value && records.value) void choose(pressed.value)
}
useEventListener(window, 'keydown', keys)
</script>

<template>
  <div class="page">
    <PageError v-if="error" :error="error" />
    <h1 v-if="!check && !error">…</h1>
    <template v-if="check">
      <div class="page-head">
        <div>
          <RouterLink class="small" :to="{ name: 'baseline', params: { classId } }">{{ $t('All checks') }}</RouterLink>
          <h1 class="said">{{ check.child }}</h1>
        </div>
        <div class="sure" role="status">
          <span class="gauge" aria-hidden="true"
            ><i :style="{ width: `${percent}%` }" /><em :style="{ left: `${check.mostPercent}%` }"
          /></span>
          <span>
            <b>{{ check.asked }}</b>
            {{ $t('asked, {a}', { a: check.asked || check.startsFrom ? check.sureInWords : $t('nothing known yet') })
            }}<template v-if="check.startsFrom">; {{ check.startsFrom }}</template>
          </span>
        </div>
        <div class="end">
          <RouterLink v-if="!check.endedAt" class="button plain" :to="{ name: 'baseline', params: { classId } }">{{
            $t('Pause')
          }}</RouterLink>
          <button
            v-if="records && !check.endedAt && check.asked"
            type="button"
            class="button"
            :class="{ main: check.done }"
            :disabled="busy"
            @click="end"
          >
            {{ check.done ? $t('End the check') : $t('End it here') }}
          </button>
        </div>
      </div>

      <div class="two">
        <section v-if="question" class="question" :aria-label="$t('The question')">
          <div class="ask">
            <p class="small soft step">{{ $t('Lay out') }}</p>
            <p>
              <template v-if="question.layOut.length">{{
                question.layOut.map((s) => `${s.item}: ${s.amount}`).join(' · ')
              }}</template><template v-else>{{ $t('Nothing.') }}</template>
            </p>
            <p class="small soft step">{{ $t('Put out, or say') }}</p>
            <p class="said say">{{ item?.ask ?? question.iCan }}</p>
            <p class="small soft step">{{ $t('Counts as right') }}</p>
            <p>
              <b v-if="item" class="said right">{{ item.answer }}</b>
              <span class="soft">{{ question.right.join('; ') }}</span>
            </p>
            <p v-if="question.items.length > 1">
              <button type="button" class="button plain small" @click="second = !second">
                {{ second ? $t('Back to the first one') : $t('Not sure? Ask another of the same') }}
              </button>
            </p>
          </div>
          <div v-if="item?.picture" class="picture"><PictureView :picture="item.picture" /></div>

          <template v-if="records">
            <div class="taps" role="radiogroup" :aria-label="$t('How {child} did it', { child: check.child })">
              <button
                v-for="s in supports"
                :key="s.value"
                type="button"
                role="radio"
                :aria-checked="support === s.value"
                class="code"
                :class="{ on: support === s.value }"
                @click="choose(s.value)"
              >
                {{ s.label }}
              </button>
            </div>
            <div class="more">
              <button
                v-for="s in question.slips"
                :key="s.id"
                type="button"
                class="chip"
                :class="{ on: slip === s.id }"
                :aria-pressed="slip === s.id"
                @click="slip = slip === s.id ? undefined : s.id"
              >
                {{ s.text }}
              </button>
              <button
                ref="nextButton"
                type="button"
                class="button main next"
                :disabled="!support || busy"
                @click="answer"
              >
                {{ $t('Next') }}
              </button>
            </div>
          </template>
          <CautionList :cautions="question.cautions" />
        </section>

        <section v-else class="question" :aria-label="$t('The result')">
          <template v-if="check.endedAt">
            <h2>{{ $t('Ended on {day}', { day: dayAndMonth(check.endedAt.slice(0, 10)) }) }}</h2>
            <p>
              {{
                $t(
                  '{asked} questions, {sureInWords}. What was not asked is inferred: it counts until someone has seen it.',
                  { asked: check.asked, sureInWords: check.sureInWords },
                )
              }}
            </p>
          </template>
          <template v-else>
            <h2>{{ $t('Sure enough') }}</h2>
            <p>{{ $t('There is nothing more worth asking. End the check to put what it infers on the grid.') }}</p>
          </template>
          <template v-if="check.readyNext.length">
            <h3 class="after">{{ $t('Likely next, as a guess to confirm') }}</h3>
            <p class="said">{{ check.readyNext.join(' · ') }}</p>
          </template>
          <p class="beside">
            <RouterLink class="button" :to="{ name: 'child', params: { classId, childId: check.childId } }">{{
              $t('{child}’s page', { child: check.child })
            }}</RouterLink>
            <button v-if="then.length" type="button" class="button main" @click="goOn">
              {{ $t('On to the next child') }}
            </button>
          </p>
        </section>

        <section class="path" :aria-label="$t('The path so far')">
          <PathStrings :path="check.path" :reach="check.reach" :chosen="chosen" @choose="chosen = $event" />
          <div v-if="about" class="about">
            <b class="said">{{ about.short }}</b>
            <span class="small soft">
              {{
                about.asked
                  ? `asked: ${supportLabel(about.asked).toLowerCase()}`
                  : `inferred: ${about.held ? $t('likely there') : $t('likely not yet')}, about ${about.surePercent} % sure`
              }}
            </span>
            <span v-if="records && !about.asked" class="beside">
              <button type="button" class="button small" :disabled="busy" @click="know(true)">
                {{ $t('I know it is there') }}
              </button>
              <button type="button" class="button small" :disabled="busy" @click="know(false)">
                {{ $t('I know it is not') }}
              </button>
              <button
                v-if="about.override !== null"
                type="button"
                class="button plain small"
                :disabled="busy"
                @click="know(null)"
              >
                {{ $t('Leave it to the check') }}
              </button>
            </span>
          </div>
          <p class="small soft key">
            <i class="k right" /> {{ $t('shown alone') }} <i class="k wrong" /> {{ $t('asked, not alone') }}
            <i class="k likely" /> {{ $t('likely there, inferred') }} <i class="k unlikely" />
            {{ $t('likely not yet') }} <i class="k known" /> {{ $t('an adult knows better') }}
          </p>
        </section>
      </div>

      <details v-if="check.answers.length" class="ruled answers">
        <summary>{{ $t('Answers so far') }}</summary>
        <ol>
          <li v-for="a in check.answers" :key="a.id">
            <span class="said">{{ a.short }}</span>: {{ supportLabel(a.support).toLowerCase() }}
            <span class="small soft">{{ a.by }}</span>
          </li>
        </ol>
        <p class="small soft">
          {{ $t('One was wrong? Withdraw it on') }}
          <RouterLink :to="{ name: 'child', params: { classId, childId: check.childId } }">{{
            $t('the child’s page')
          }}</RouterLink>{{ $t('; the check reckons anew.') }}
        </p>
      </details>
    </template>
  </div>
</template>

<style scoped>
.sure {
  display: flex;
  align-items: center;
  gap: 0.7rem;
}

.gauge {
  position: relative;
  width: 11rem;
  height: 14px;
  border: 1.5px solid var(--ink);
  border-radius: 7px;
  overflow: hidden;
}

.gauge i {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--spruce);
}

/* Where it stops by itself. */
.gauge em {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 1.5px dashed var(--ink);
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 6fr) minmax(0, 7fr);
  gap: 2rem;
  align-items: start;
}

.question {
  padding: 0.5rem 1.1rem 1rem;
  border: 1.5px solid var(--ink);
  border-radius: var(--corner);
}

.step {
  margin: 0.6rem 0 -0.2rem;
}

.say {
  font-size: 1.5rem;
  line-height: 1.25;
}

.right {
  margin-right: 0.7rem;
  font-size: 1.2rem;
}

.picture {
  max-width: 20rem;
  max-height: 11rem;
  margin: 0.3rem 0;
}

.picture :deep(svg) {
  max-height: 11rem;
}

.taps {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 6px;
  margin-top: 0.7rem;
}

.code {
  min-height: 64px;
  border: 1.5px solid var(--ink);
  border-radius: var(--corner);
  background: var(--card);
  color: var(--ink);
  font: 700 1rem var(--body);
  cursor: pointer;
}

.more {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 6px;
}

.chip {
  min-height: var(--target);
  padding: 0 0.8rem;
  border: 1.5px dashed var(--ink-soft);
  border-radius: 22px;
  background: var(--card);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}

.on {
  border: 1.5px solid var(--spruce);
  background: var(--spruce);
  color: #fffcf5;
}

.next {
  min-width: 9rem;
  min-height: 52px;
  margin-left: auto;
}

.about > b {
  margin-right: 0.6rem;
}

.about {
  padding: 0.5rem 0.8rem;
  border: 1.5px solid var(--spruce);
  border-radius: var(--corner);
}

.key {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.1rem 0.4rem;
}

.k {
  width: 12px;
  height: 12px;
  margin-left: 0.5rem;
  border: 2px solid var(--ink);
  border-radius: 50%;
}

.k.right {
  background: var(--ink);
}

.k.wrong {
  background: linear-gradient(45deg, transparent 42%, var(--ink) 42% 58%, transparent 58%);
}

.k.likely {
  border-style: dotted;
  background: var(--spruce-wash);
}

.k.unlikely {
  width: 8px;
  height: 8px;
  border: 1.5px solid var(--line-strong);
}

.k.known {
  border-radius: 3px;
  background: var(--ink);
}

.answers {
  margin-top: 1.2rem;
  max-width: 50rem;
}

@media (max-width: 900px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
