<script setup lang="ts">
import { keepPreviousData, useInfiniteQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, take } from '@/app/api/client'
import { moment } from '@/app/dates'
import { queryKey } from '@/app/keys'
import PageError from '@/ui/PageError.vue'

/** Who signed in, took something out, or changed what the school answers for. */
const find = ref('')
const { data, error, hasNextPage, fetchNextPage } = useInfiniteQuery({
  queryKey: queryKey('traces', find),
  queryFn: ({ pageParam }) =>
    take(api.GET('/api/school/traces', { params: { query: { find: find.value || undefined, before: pageParam } } })),
  initialPageParam: undefined as number | undefined,
  getNextPageParam: (page) => (page.more ? page.newest.at(-1)?.id : undefined),
  placeholderData: keepPreviousData,
})
const traces = computed(() => data.value?.pages.flatMap((page) => page.newest) ?? [])
const keptDays = computed(() => data.value?.pages[0]?.keptDays)
</script>

<template>
  <div>
    <PageError v-if="error" :error="error" />
    <div class="beside line">
      <input
        v-model.lazy="find"
        type="text"
        :placeholder="$t('A name, a class, or what was done')"
        :aria-label="$t('Look for')"
      />
      <a class="button" href="/api/school/traces/file" download="traces.csv">{{ $t('As a file (CSV)') }}</a>
    </div>
    <p v-if="data && !traces.length">{{ $t('Nothing of that here.') }}</p>
    <ol class="traces" data-quoted>
      <li v-for="trace in traces" :key="trace.id">
        <span class="soft small">{{ moment(trace.at) }}</span>
        <span
          ><b>{{ trace.who }}</b> {{ trace.what }}</span
        >
      </li>
    </ol>
    <button v-if="hasNextPage" type="button" class="button" @click="() => fetchNextPage()">
      {{ $t('Older ones') }}
    </button>
    <p class="soft small">
      {{
        $t(
          'Kept for {days} days. Children stand here by their numbers, and no name of theirs is kept. Taking them out as a file leaves a trace, too.',
          { days: keptDays ?? 365 },
        )
      }}
    </p>
  </div>
</template>

<style scoped>
.traces {
  max-height: 28rem;
  margin: 0.6rem 0;
  padding: 0;
  overflow: auto;
  list-style: none;
}

.traces li {
  display: grid;
  grid-template-columns: 11rem 1fr;
  gap: 0.2rem 0.8rem;
  padding-block: 0.35rem;
  border-bottom: 1px solid var(--line);
}

@media (max-width: 600px) {
  .traces li {
    grid-template-columns: 1fr;
  }
}
</style>
