<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { dayAndMonth } from '@/app/dates'
import PictureView from '@/mats/PictureView.vue'
import { say, sayError } from '@/ui/notices'
import ErrorLine from '@/ui/ErrorLine.vue'
import GuessList from './GuessList.vue'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'
import NumberField from '@/ui/NumberField.vue'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'

/** The weekly jar: filled, guessed at, opened and counted; how far off each child was, jar by jar. */
const queries = useQueryClient()
const { classId, records, leads } = useAccount()
const { data: jar, error } = useQuery({
  queryKey: queryKey('jar', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/jar', { params: { path: { classId: classId.value } } })),
})

const shapes: Record<Schemas['ThingShape'], string> = {
  Ball: t('balls'),
  Disc: t('flat and round'),
  Cube: t('cubes'),
  Mixed: t('of several shapes'),
}
const filling = ref<Schemas['JarFilling']>({
  jar: t('tall jar'),
  jarMl: 1000,
  things: t('wooden beads'),
  shape: 'Ball',
  acrossMm: 20,
  thickMm: 10,
  amount: 10,
})
watch(
  jar,
  (j) => {
    if (!j) return
    const { jar: name, jarMl, things, shape, acrossMm, thickMm } = j.last?.round ?? filling.value
    filling.value = { jar: name, jarMl, things, shape, acrossMm, thickMm, amount: j.proposal.amount }
  },
  { immediate: true },
)
const counted = ref<number>()
const path = () => ({ path: { classId: classId.value } })
const ofRound = () => ({ path: { classId: classId.value, roundId: jar.value!.open!.id } })

async function change(call: Promise<unknown>, done: string) {
  await call
  await queries.invalidateQueries({ queryKey: queryKey('jar') })
  say(done)
}
const fill = () =>
  change(
    take(api.POST('/api/classes/{classId}/jar', { params: path(), body: filling.value })),
    t('The jar stands out.'),
  )
const open = () =>
  change(
    take(
      api.POST('/api/classes/{classId}/jar/{roundId}/open', {
        params: ofRound(),
        body: { counted: counted.value ?? 0 },
      }),
    ),
    t('The count is kept.'),
  )
const rest = () => change(take(api.POST('/api/classes/{classId}/jar/rest', { params: path() })), t('The jar rests.'))
const bringBack = () =>
  change(take(api.DELETE('/api/classes/{classId}/jar/rest', { params: path() })), t('The jar is back.'))
const listed = (names: string[]) =>
  names.length < 2 ? names.join('') : t('{list} and {at}', { list: names.slice(0, -1).join(', '), at: names.at(-1) })
const guessed = computed(() => jar.value?.open?.guesses.length ?? 0)
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Guess jar') }}</h1>
      <RouterLink class="small" :to="{ name: 'mat', params: { classId, desk: 'jar' } }">{{
        $t('Reckon with a jar')
      }}</RouterLink>
    </div>
    <PageError v-if="error" :error="error" />
    <div v-if="jar" class="parts">
      <section v-if="jar.open" class="ruled" aria-labelledby="now">
        <h2 id="now">
          {{ $t('How many {things} are in the {jar}?', { things: jar.open.things, jar: jar.open.jar }) }}
        </h2>
        <p>
          <b>{{ guessed }}</b>
          {{
            $t('of {count} have guessed. It was filled on {day}.', {
              count: jar.children.length,
              day: dayAndMonth(jar.open.filled),
            })
          }}
        </p>
        <GuessList :round="jar.open" :children="jar.children" :editable="records" />
        <AskForm v-if="records" class="beside opening" :send="open">
          <FaultyField name="counted" :label="$t('Opening day: counted')"
            ><NumberField v-model="counted" :min="1" :max="300" required :label="$t('Counted')"
          /></FaultyField>
          <button type="submit" class="button main">{{ $t('Open the jar') }}</button>
        </AskForm>
      </section>

      <section v-else-if="jar.restsUntil" class="ruled">
        <h2>{{ $t('The jar rests') }}</h2>
        <p>{{ $t('It comes back about {day}, as news.', { day: dayAndMonth(jar.restsUntil) }) }}</p>
        <button v-if="leads" type="button" class="button" @click="bringBack().catch(sayError)">
          {{ $t('Bring it back now') }}
        </button>
      </section>

      <section v-else class="ruled" aria-labelledby="fill">
        <h2 id="fill">{{ $t('Fill the next jar') }}</h2>
        <p v-if="jar.rest">
          {{ jar.rest }}
          <button v-if="leads" type="button" class="button small" @click="rest().catch(sayError)">
            {{ $t('Let it rest') }}
          </button>
        </p>
        <AskForm v-if="records" :send="fill">
          <div class="beside">
            <FaultyField name="jar" :label="$t('Jar')"
              ><input v-model="filling.jar" type="text" required
            /></FaultyField>
            <FaultyField name="jarMl" :label="$t('Millilitres')"
              ><NumberField v-model="filling.jarMl" :min="1" :max="20000" required
            /></FaultyField>
          </div>
          <div class="beside">
            <FaultyField name="things" :label="$t('Things')"
              ><input v-model="filling.things" type="text" required
            /></FaultyField>
            <FaultyField name="shape" :label="$t('Shape')"
              ><select v-model="filling.shape" class="box">
                <option v-for="(name, shape) in shapes" :key="shape" :value="shape">{{ name }}</option>
              </select></FaultyField
            >
            <FaultyField name="acrossMm" :label="$t('Across, mm')"
              ><NumberField v-model="filling.acrossMm" :min="1" :max="200" required
            /></FaultyField>
          </div>
          <div class="beside opening">
            <FaultyField name="amount" :label="$t('How many to put in')"
              ><NumberField v-model="filling.amount" :min="1" :max="300" required
            /></FaultyField>
            <button type="submit" class="button main">{{ $t('Put the jar out') }}</button>
          </div>
          <p>{{ jar.proposal.reason }}</p>
          <p class="caution small">{{ jar.caution }}</p>
        </AskForm>
      </section>

      <section v-if="jar.last" class="ruled" aria-labelledby="last">
        <h2 id="last">{{ $t('Opened on {day}', { day: dayAndMonth(jar.last.day) }) }}</h2>
        <p>
          <b>{{ jar.last.counted }}</b> {{ jar.last.round.things }}: {{ jar.last.heapsInWords }}.
        </p>
        <div class="heaps"><PictureView :picture="jar.last.heaps" fill /></div>
        <p v-if="jar.last.nearest.length" class="said nearest">
          {{ $t('Nearest: {listed}', { listed: listed(jar.last.nearest) }) }}
        </p>
        <RouterLink
          class="button"
          :to="{
            name: 'mat',
            params: { classId, desk: 'jar' },
            query: { count: String(jar.last.counted), board: '1' },
          }"
          >{{ $t('Lay it out on the board') }}</RouterLink
        >
      </section>

      <section v-if="jar.days.length" class="ruled wide" aria-labelledby="lines">
        <h2 id="lines">{{ $t('How far off, jar by jar') }}</h2>
        <p class="soft small">
          {{
            $t(
              'Above the line too many, below too few; the line is the count. Guessing is for growing a feeling for amounts, not for marks.',
            )
          }}
        </p>
        <ul class="lines">
          <li v-for="child in jar.children" :key="child.id">
            <b class="said">{{ child.name }}</b>
            <ErrorLine :errors="child.errors" />
            <span class="small soft">{{ child.trend }}</span>
          </li>
        </ul>
      </section>
    </div>
  </div>
</template>

<style scoped>
.parts {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 1.1rem 1.8rem;
  align-items: start;
}

.wide {
  grid-column: 1 / -1;
}

.opening {
  align-items: end;
}

.opening .button {
  margin-bottom: 0.7rem;
}

input[type='number'] {
  width: 7rem;
}

.heaps {
  max-width: 34rem;
}

.nearest {
  font-size: 1.3rem;
}

.caution {
  border-left: 4px solid var(--brick);
  padding-left: 0.7rem;
}

.lines {
  columns: 24rem auto;
  list-style: none;
  padding: 0;
}

.lines li {
  display: grid;
  grid-template-columns: 6.5rem 9rem 1fr;
  gap: 0.7rem;
  align-items: center;
  break-inside: avoid;
  border-bottom: 1px solid var(--line);
}

@media (max-width: 860px) {
  .parts {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
