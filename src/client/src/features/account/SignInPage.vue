<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { accountQuery, useForget } from '@/app/account'
import { api, take } from '@/app/api/client'
import { waysOfWriting } from '@/app/ways'
import { t } from '@/app/language'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'

const route = useRoute()
const router = useRouter()
const forget = useForget()
const { data: account } = useQuery(accountQuery)

const form = ref({ code: '', fullName: '', email: '', password: '', schoolName: '', className: '' })
// The browser's guess of where the school is; both can be put right here, and later in Set-up.
const timeZone = ref(Intl.DateTimeFormat().resolvedOptions().timeZone)
const locale = ref('')
const zones = [...new Set([timeZone.value, ...Intl.supportedValuesOf('timeZone')])].sort()
const ways = computed(() => waysOfWriting(account.value?.locales ?? []))
watch(ways, (all) => (locale.value ||= all.find((w) => w.tag === navigator.language)?.tag ?? all[0]?.tag ?? ''), {
  immediate: true,
})
const refusal = ref('')

async function comeIn(call: Promise<unknown>) {
  await call
  const { signedIn } = await forget()
  const back = route.query.back
  const first = signedIn?.classes[0]
  if (typeof back === 'string' && back.startsWith('/c/')) await router.push(back)
  else if (first) await router.push({ name: 'today', params: { classId: first.id } })
  else if (signedIn?.leads) await router.push({ name: 'school-door' })
  else throw new Error(t('You are signed in, but belong to no class yet.'))
}

// Asked for once the password is right, of whoever has a second step.
const code = ref<string | null>(null)
const codeField = useTemplateRef<HTMLInputElement>('codeField')
async function signIn() {
  const { email, password } = form.value
  const answer = await take(api.POST('/api/account/sign-in', { body: { email, password, code: code.value } }))
  if (!answer?.code) return comeIn(Promise.resolve())
  code.value = ''
  await nextTick()
  codeField.value?.focus()
}
const firstStart = () =>
  comeIn(
    take(
      api.POST('/api/account/first-start', {
        body: { ...form.value, timeZone: timeZone.value, locale: locale.value },
      }),
    ),
  )
const demo = (key: string) =>
  comeIn(take(api.POST('/api/account/demo/{key}', { params: { path: { key } } }))).catch(
    (problem: Error) => (refusal.value = problem.message),
  )

const firstFields = [
  { key: 'code', label: t('Code, as the server wrote it when it was started'), type: 'text', auto: 'off' },
  { key: 'fullName', label: t('Your name'), type: 'text', auto: 'name' },
  { key: 'schoolName', label: t('School'), type: 'text', auto: 'organization' },
  { key: 'className', label: t('Class'), type: 'text', auto: 'off' },
  { key: 'email', label: t('E-mail'), type: 'email', auto: 'username' },
  { key: 'password', label: t('Password (ten letters or more)'), type: 'password', auto: 'new-password' },
] as const
</script>

<template>
  <main class="door">
    <svg class="thread" viewBox="0 0 1000 120" preserveAspectRatio="none" aria-hidden="true">
      <path d="M0 8 Q 500 128 1000 8" vector-effect="non-scaling-stroke" />
    </svg>
    <h1>{{ $t('Fobble') }}</h1>
    <p class="lead">
      {{ $t('Number work for four- to six-year-olds: what to teach, with whom, and what each child was seen to do.') }}
    </p>

    <AskForm v-if="account?.firstStart" class="panel" :send="firstStart">
      <h2>{{ $t('The first account') }}</h2>
      <p class="soft">
        {{ $t('Nobody has an account here yet. This one leads the class; others are added in Set-up.') }}
      </p>
      <FaultyField v-for="field in firstFields" :key="field.key" :name="field.key" :label="field.label"
        ><input v-model="form[field.key]" :type="field.type" :autocomplete="field.auto" required
      /></FaultyField>
      <label class="field">
        <span>{{ $t('Days are written') }}</span>
        <select v-model="locale" class="box">
          <option v-for="way in ways" :key="way.tag" :value="way.tag">{{ way.label }}</option>
        </select>
      </label>
      <label class="field">
        <span>{{ $t('Time zone') }}</span>
        <select v-model="timeZone" class="box">
          <option v-for="zone in zones" :key="zone" :value="zone">{{ zone.replaceAll('_', ' ') }}</option>
        </select>
      </label>
      <p class="soft small">
        {{ $t('Order of days, first day of the week and paper follow from that. Set-up can change it.') }}
      </p>
      <button class="button main">{{ $t('Begin') }}</button>
    </AskForm>

    <template v-else-if="account">
      <section v-if="account.demoAdults.length" class="panel">
        <h2>{{ $t('Come in as') }}</h2>
        <p class="soft small">{{ $t('Made-up adults of a made-up school. Nothing here is about a real child.') }}</p>
        <button
          v-for="adult in account.demoAdults"
          :key="adult.key"
          type="button"
          class="adult"
          @click="demo(adult.key)"
        >
          <b>{{ adult.fullName }}</b>
          <span>{{ adult.what }}</span>
        </button>
        <p v-if="refusal" class="warn" role="alert">{{ refusal }}</p>
      </section>
      <component
        :is="account.demoAdults.length ? 'details' : 'div'"
        class="panel"
        :class="{ fold: account.demoAdults.length }"
      >
        <component :is="account.demoAdults.length ? 'summary' : 'div'">
          <h2>{{ account.demoAdults.length ? $t('Come in with a password') : $t('Sign in') }}</h2>
        </component>
        <AskForm :send="signIn">
          <FaultyField name="email" :label="$t('E-mail')"
            ><input v-model="form.email" type="email" autocomplete="username" required
          /></FaultyField>
          <FaultyField name="password" :label="$t('Password')"
            ><input v-model="form.password" type="password" autocomplete="current-password" required
          /></FaultyField>
          <FaultyField v-if="code !== null" name="code" :label="$t('Code that your phone shows, or a spare one')"
            ><input ref="codeField" v-model="code" type="text" autocomplete="one-time-code" maxlength="20" required
          /></FaultyField>
          <div class="beside">
            <button class="button main">{{ $t('Sign in') }}</button>
            <RouterLink v-if="account.mail" class="small" to="/lost-password">{{
              $t('Lost your password?')
            }}</RouterLink>
          </div>
        </AskForm>
        <p v-if="!account.mail" class="soft small">
          {{ $t('A lost password: whoever leads the school can give you a link to a new one.') }}
        </p>
      </component>
      <p v-if="account.demoAdults.length" class="panel post small">
        <RouterLink to="/post">{{ $t('Post: the mail that this demo has sent') }}</RouterLink>
      </p>
    </template>
  </main>
</template>

<style scoped>
.door {
  position: relative;
  min-height: 100vh;
  padding: calc(9vh - 46px) 1.5rem 3rem;
}

.thread {
  position: absolute;
  inset: 0 0 auto;
  width: 100%;
  height: 16vh;
}

.thread path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.8;
}

h1 {
  position: relative;
  width: max-content;
  margin: 0 auto;
  padding: 1.7rem 1.6rem 1.5rem;
  border-radius: 50%;
  background: var(--spruce);
  color: #fffcf5;
  font: 700 2.4rem/1 var(--child);
}

.lead {
  max-width: 30rem;
  margin: 1.2rem auto 1.6rem;
  text-align: center;
  font-size: 1.1rem;
}

.panel {
  max-width: 27rem;
  margin: 0 auto;
  padding-top: 0.8rem;
  border-top: 1.5px solid var(--ink);
}

.panel + .panel {
  margin-top: 1.3rem;
}

.post {
  border-top: 0;
}

.adult {
  display: grid;
  gap: 0.1rem;
  width: 100%;
  min-height: 60px;
  margin-top: 0.6rem;
  padding: 0.6rem 0.9rem;
  border: 1.5px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  color: var(--ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}

.adult:hover {
  border-color: var(--spruce);
  background: var(--spruce-wash);
}

.adult span {
  color: var(--ink-soft);
  font-size: 0.92rem;
}
</style>
