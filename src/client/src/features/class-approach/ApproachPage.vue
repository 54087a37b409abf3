<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { useAtOnce } from '@/app/useAtOnce'
import { api, take, type Schemas } from '@/app/api/client'
import PictureView from '@/mats/PictureView.vue'
import { say } from '@/ui/notices'
import OwnNumbers from './OwnNumbers.vue'
import { questions, type Choice } from '@/app/questions'
import { t } from '@/app/language'
import PageError from '@/ui/PageError.vue'

/** Where practitioners disagree: a choice each, with a line on what it means. Plans, groups, mats, stories, prompts and sheets follow it. */
const { classId, current, leads } = useAccount()
const { data: approach, error } = useQuery({
  queryKey: queryKey('approach', classId),
  queryFn: () => take(api.GET('/api/classes/{classId}/approach', { params: { path: { classId: classId.value } } })),
})

/** What an answer means where it hangs on numbers of the core, in the core's own words. */
const meant = (name: keyof Choice, value: string) =>
  approach.value?.means.find((m) => m.question === name && m.answer === value)?.means

const atOnce = useAtOnce()
const choose = async (name: keyof Choice, value: string) =>
  (await atOnce<Schemas['ApproachView']>(
    queryKey('approach', classId.value),
    (now) => ({ ...now, choice: { ...now.choice, [name]: value } }),
    () =>
      take(
        api.PATCH('/api/classes/{classId}/approach', {
          params: { path: { classId: classId.value } },
          body: { [name]: value },
        }),
      ),
  )) && say(t('Everything follows it from now on.'))
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('How {name} works', { name: current?.name }) }}</h1>
      <span class="soft">{{
        $t('There is no one right way. Choose yours; plans, groups, mats, stories, prompts and sheets follow.')
      }}</span>
    </div>
    <PageError v-if="error" :error="error" />
    <div v-if="approach" class="all">
      <fieldset v-for="question in questions" :key="question.name" :disabled="!leads" class="ruled">
        <legend>{{ question.asks }}</legend>
        <PictureView v-if="question.name === 'frameFill'" class="six" :picture="approach.six" />
        <label v-for="answer in question.of" :key="answer.value" class="answer">
          <input
            type="radio"
            :name="question.name"
            :value="answer.value"
            :checked="approach.choice[question.name] === answer.value"
            @change="choose(question.name, answer.value)"
          />
          <span>
            <b>{{ answer.label }}</b>
            <span class="soft small">{{ answer.means || meant(question.name, answer.value) }}</span>
          </span>
        </label>
      </fieldset>
    </div>
    <OwnNumbers v-if="leads && approach" :class-id="classId" />
  </div>
</template>

<style scoped>
.all {
  columns: 24rem auto;
  column-gap: 2.4rem;
}

fieldset {
  break-inside: avoid;
  margin: 0 0 1.1rem;
  border: 0;
  border-top: 1.5px solid var(--ink);
  padding: 0;
  position: relative;
}

legend {
  padding: 0.45rem 0.6rem 0 0;
  float: left;
  width: 100%;
  font-weight: 700;
  font-size: 1.05rem;
}

.answer {
  display: flex;
  gap: 0.7rem;
  align-items: start;
  padding: 0.3rem 0;
  clear: both;
}

.answer input {
  flex: none;
  width: 20px;
  height: 20px;
  margin-top: 2px;
  accent-color: var(--spruce);
}

.answer b,
.answer .soft {
  display: block;
}

.six {
  position: absolute;
  right: 0;
  top: 0.6rem;
  width: 8rem;
}
</style>
