<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take } from '@/app/api/client'
import { clock, fullDay } from '@/app/dates'
import { useWeek } from '@/app/week'
import PictureView from '@/mats/PictureView.vue'
import { useFirstHour } from '@/app/useFirstHour'
import AwayRegister from './AwayRegister.vue'
import FirstHour from './FirstHour.vue'
import SetOutList from './SetOutList.vue'
import WhyFold from '@/ui/WhyFold.vue'
import ChildMarks from '@/ui/ChildMarks.vue'
import PageError from '@/ui/PageError.vue'

const { classId, current, leads } = useAccount()
const { day } = useWeek()
const { going } = useFirstHour()

const dayView = (on: Ref<string>) =>
  useQuery({
    queryKey: queryKey('today', classId, on),
    queryFn: () =>
      take(
        api.GET('/api/classes/{classId}/days/{day}', { params: { path: { classId: classId.value, day: on.value } } }),
      ),
    enabled: computed(() => on.value !== ''),
    placeholderData: keepPreviousData,
  })
const { data: asked, error } = dayView(day)
// On a day without school the next one is prepared.
const free = computed(() => asked.value?.isSchoolDay === false)
const next = computed(() => (free.value && asked.value?.nextSchoolDay) || '')
const { data: following } = dayView(next)
const at = computed(() => next.value || day.value)
const view = computed(() => (free.value ? (next.value ? following.value : undefined) : asked.value))
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ day ? fullDay(day) : '' }}</h1>
      <span class="soft">{{ current?.name }}, {{ current?.school }}</span>
      <b v-if="view?.different && view.isSchoolDay">{{ view.different }}</b>
      <div class="end">
        <a v-if="view?.carpet" class="button" :href="`/api/classes/${classId}/days/${at}/page`" target="_blank">{{
          $t('On paper')
        }}</a>
      </div>
    </div>
    <PageError v-if="error" :error="error" />
    <p v-if="view?.lost" class="lost">
      {{ view.lost }}
      <RouterLink v-if="leads" class="button small" :to="{ name: 'revise-plan', params: { classId } }">{{
        $t('Find it another day')
      }}</RouterLink>
    </p>

    <FirstHour v-if="going" />

    <template v-if="free">
      <p class="said quiet">
        {{ asked?.different ? $t('No school: {different}.', { different: asked.different }) : $t('No school today.') }}
      </p>
      <h2 v-if="next" class="next">
        <RouterLink :to="{ name: 'today', params: { classId, day: next } }">{{ fullDay(next) }}</RouterLink>
      </h2>
    </template>

    <template v-if="view && !view.carpet && !going">
      <p class="said quiet">
        {{ view.different ? $t('No whole-class lesson on this day.') : $t('Nothing is planned for this day yet.') }}
      </p>
      <RouterLink v-if="leads" class="button main" :to="{ name: 'week', params: { classId, day: at } }">{{
        $t('Plan this week')
      }}</RouterLink>
      <p v-else class="soft">{{ $t('The class’s lead teacher plans the week.') }}</p>
    </template>

    <div v-else-if="view?.carpet" class="today">
      <section class="carpet ruled" aria-labelledby="carpet-head">
        <div class="line">
          <h2 id="carpet-head">{{ $t('On the carpet') }}</h2>
          <span class="soft">{{
            $t('{time}, {minutes} minutes, {adult}', {
              time: clock(view.carpet.start),
              minutes: view.carpet.minutes,
              adult: view.carpet.adult,
            })
          }}</span>
        </div>
        <p class="aim said">{{ view.carpet.skill.iCan }}</p>
        <div class="show">
          <PictureView
            v-for="item in view.carpet.items.filter((i) => i.picture).slice(0, 2)"
            :key="item.key"
            :picture="item.picture!"
            class="glimpse"
          />
        </div>
        <p>
          <b>{{ view.carpet.activity.name }}.</b> {{ view.carpet.activity.purpose }}
        </p>
        <ul class="say said">
          <li v-for="line in view.carpet.activity.say" :key="line">{{ line }}</li>
        </ul>
        <RouterLink class="button" :to="{ name: 'carpet', params: { classId, day: at } }">{{
          $t('Open the lesson card')
        }}</RouterLink>
        <p v-for="note in view.notes" :key="note" class="noted">{{ note }}</p>
        <p v-for="(more, i) in view.more" :key="more.skill">
          <b>{{ $t('Later on the carpet: {short}', { short: more.short }) }}</b>{{
            $t(', {how}, with {name}.', { how: more.how, name: more.activity.name })
          }}
          <RouterLink :to="{ name: 'carpet', params: { classId, day: at }, query: { lesson: i + 1 } }">{{
            $t('Its card')
          }}</RouterLink>
        </p>
        <div v-if="view.starters.length" class="starters">
          <h3>{{ $t('First, five minutes to bring back') }}</h3>
          <p v-for="starter in view.starters" :key="starter.skill">
            <b>{{ starter.short }}</b> {{ $t('with {name}.', { name: starter.activity.name }) }}
          </p>
          <WhyFold :reasons="view.starters.map((s) => ({ of: s.short, why: s.reason }))" />
        </div>
      </section>

      <section class="ruled" aria-labelledby="groups-head">
        <h2 id="groups-head">{{ $t('Small groups, in order') }}</h2>
        <p v-if="!view.groups.length" class="soft">
          {{ $t('No groups for this day.') }}
          <RouterLink v-if="leads" :to="{ name: 'groups', params: { classId, day: at } }">{{
            $t('Ask for groups')
          }}</RouterLink>
        </p>
        <RouterLink
          v-for="group in view.groups"
          :key="group.sessionId"
          class="group"
          :to="{ name: 'session', params: { classId, sessionId: group.sessionId } }"
        >
          <span class="when">{{ clock(group.start) }}</span>
          <span class="who">
            <b>{{ group.short }}</b> · {{ group.activity }}
            <ChildMarks class="names" :children="group.children" />
            <span class="soft small">{{ group.adult }}, {{ group.where.toLowerCase() }}</span>
            <span v-if="group.away.length" class="warn small">{{
              $t('Away: {list}', { list: group.away.join(', ') })
            }}</span>
            <span v-if="group.joined.length" class="small">{{
              $t('Instead: {list}', { list: group.joined.join(', ') })
            }}</span>
            <span v-if="group.recorded" class="small done">{{
              $t('Recorded: {recorded} of {count}', { recorded: group.recorded, count: group.children.length })
            }}</span>
          </span>
        </RouterLink>
        <div v-if="view.choice" class="extra">
          <b>{{ $t('Choice time: {name}.', { name: view.choice.name }) }}</b> {{ view.choice.purpose }}
        </div>
        <div v-if="view.transition" class="extra">
          <b>{{ $t('Between lessons: {name}.', { name: view.transition.name }) }}</b>{{ ' ' }}
          <span class="said">{{ view.transition.steps[0] }}</span>
        </div>
      </section>

      <div class="side">
        <SetOutList :day="at" :things="view.setOut" :cautions="view.cautions" :standing="view.standing" />
        <AwayRegister :day="at" :children="view.children" />
        <section class="ruled" aria-labelledby="jar-head">
          <h2 id="jar-head">{{ $t('The jar') }}</h2>
          <p>
            {{ view.jar }} <RouterLink :to="{ name: 'jar', params: { classId } }">{{ $t('To the jar') }}</RouterLink>
          </p>
        </section>
        <section class="ruled" aria-labelledby="again-head">
          <h2 id="again-head">{{ $t('Look again at') }}</h2>
          <p v-if="!view.lookAgain.length" class="soft">{{ $t('Nobody is due.') }}</p>
          <ul class="again">
            <li v-for="due in view.lookAgain" :key="due.childId + due.skillId">
              <RouterLink
                :to="{ name: 'class', params: { classId }, query: { child: due.childId, skill: due.skillId } }"
                ><b>{{ due.name }}</b> · {{ due.short }}</RouterLink
              >
            </li>
          </ul>
        </section>
      </div>
    </div>
  </div>
</template>

<style scoped>
.next {
  margin-block: 1.6rem 0.8rem;
  font-size: 1.3rem;
}

.quiet {
  font-size: 1.3rem;
  margin: 2rem 0 1rem;
}

.lost {
  padding-left: 0.8rem;
  border-left: 4px solid var(--marigold);
}

.today {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1.1fr) minmax(0, 0.85fr);
  gap: 1.6rem;
  align-items: start;
}

.line {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 0.8rem;
}

.aim {
  margin: 0.5rem 0;
  font-size: 1.45rem;
  line-height: 1.25;
}

.show {
  display: flex;
  gap: 1.6rem;
  align-items: center;
  margin: 0.6rem 0;
}

.glimpse {
  --unit: 1.35rem;
  flex: 0 1 auto;
  min-width: 0;
}

.say {
  list-style: none;
  padding: 0;
  margin: 0.6rem 0 0.8rem;
}

.say li {
  padding: 0.15rem 0 0.15rem 0.8rem;
  border-left: 4px solid var(--line);
  font-size: 1.05rem;
}

.noted {
  padding-left: 0.6rem;
  border-left: 3px solid var(--marigold);
}

.starters {
  margin-top: 1rem;
  padding-top: 0.6rem;
  border-top: 1px solid var(--line);
}

.group {
  display: grid;
  grid-template-columns: 3.2rem 1fr;
  padding: 0.6rem 0.4rem;
  border-bottom: 1px solid var(--line);
  border-radius: var(--corner);
  color: var(--ink);
  text-decoration: none;
}

.group:hover {
  background: var(--spruce-wash);
}

.when {
  font-weight: 700;
}

.who > .small {
  display: block;
}

.names {
  margin: 0.15rem 0;
  font-size: 1.05rem;
}

.done {
  color: var(--spruce);
  font-weight: 700;
}

.extra {
  margin-top: 0.8rem;
}

.side {
  display: grid;
  gap: 1.2rem;
}

.again {
  list-style: none;
  padding: 0;
}

.again a {
  display: block;
  padding: 0.2rem 0;
  color: var(--ink);
  text-decoration-color: var(--line-strong);
}

@media (max-width: 1100px) {
  .today {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }

  .side {
    grid-column: 1 / -1;
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
}

@media (max-width: 640px) {
  .today,
  .side {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
