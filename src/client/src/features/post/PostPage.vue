<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, take } from '@/app/api/client'
import { moment } from '@/app/dates'
import { queryKey } from '@/app/keys'
import PageError from '@/ui/PageError.vue'

/** What the adults of the demo find in their mail: it goes to a post office of the demo's own, and nowhere else. */
const { data: letters, error } = useQuery({
  queryKey: queryKey('post'),
  queryFn: () => take(api.GET('/api/post', {})),
  refetchInterval: 2000,
})

// What leads to a page of this server is a link here as it would be in a mail program.
const LINK = /https?:\/\/\S+/
const parts = computed(() =>
  (letters.value ?? []).map((letter) => {
    const link = LINK.exec(letter.text)?.[0]
    const [before, after = ''] = link ? letter.text.split(link) : [letter.text]
    return {
      ...letter,
      before: before!.trim(),
      link,
      path: link && link.replace(/^https?:\/\/[^/]+/, ''),
      after: after.trim(),
    }
  }),
)
</script>

<template>
  <main class="page">
    <div class="page-head">
      <h1>{{ $t('Post') }}</h1>
      <span class="soft">{{ $t('the mail that this demo has sent; nothing leaves this machine') }}</span>
    </div>
    <PageError v-if="error" :error="error" />
    <p v-if="letters && !letters.length" class="ruled">
      {{
        $t(
          'Nothing yet. Invite an adult on the page of the school, or say at the door that you have lost your password.',
        )
      }}
    </p>
    <article v-for="(letter, i) in parts" :key="i" class="ruled letter" data-quoted>
      <h2>{{ letter.subject }}</h2>
      <p class="soft small">{{ letter.to }} · {{ moment(letter.at) }}</p>
      <p class="text">{{ letter.before }}</p>
      <a v-if="letter.link" :href="letter.path">{{ letter.link }}</a>
      <p class="text">{{ letter.after }}</p>
    </article>
    <p>
      <RouterLink to="/sign-in">{{ $t('Back to the door') }}</RouterLink>
    </p>
  </main>
</template>

<style scoped>
main {
  max-width: 46rem;
  margin-inline: auto;
}

.text {
  white-space: pre-line;
}

.letter a {
  overflow-wrap: anywhere;
}
</style>
