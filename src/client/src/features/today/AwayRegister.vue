<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { queryKey } from '@/app/keys'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { sayError } from '@/ui/notices'

/** Who is away; opened, a tag for each child to mark. */
const props = defineProps<{ day: string; children: Schemas['TodayChild'][] }>()
const queries = useQueryClient()
const { classId, records } = useAccount()
const marking = ref(false)

// What marking a child changed in the groups of the day.
const changed = ref<string[]>([])
const away = computed(() => props.children.filter((c) => c.away))

async function mark(child: Schemas['TodayChild']) {
  try {
    const { changes } = await take(
      api.PUT('/api/classes/{classId}/attendance/{day}/{childId}', {
        params: { path: { classId: classId.value, day: props.day, childId: child.id } },
        body: { away: !child.away },
      }),
    )
    changed.value = changes
    await Promise.all(
      (['today', 'groups', 'week', 'set-out'] as const).map((key) =>
        queries.invalidateQueries({ queryKey: queryKey(key) }),
      ),
    )
  } catch (problem) {
    sayError(problem)
  }
}
</script>

<template>
  <section class="ruled" aria-labelledby="away-head">
    <div class="line">
      <h2 id="away-head">{{ $t('Away') }}</h2>
      <button
        v-if="records"
        type="button"
        class="button plain small"
        :aria-expanded="marking"
        @click="marking = !marking"
      >
        {{ marking ? $t('Done') : $t('Mark') }}
      </button>
    </div>
    <p v-for="sentence in changed" :key="sentence" class="changed" role="status">{{ sentence }}</p>
    <p v-if="!marking">{{ away.length ? away.map((c) => c.name).join(', ') : $t('Everyone is here.') }}</p>
    <div v-else class="register">
      <button
        v-for="child in children"
        :key="child.id"
        type="button"
        class="tag"
        :class="{ away: child.away }"
        :aria-pressed="child.away"
        @click="mark(child)"
      >
        {{ child.name }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 0.8rem;
}

.changed {
  padding-left: 0.7rem;
  border-left: 4px solid var(--spruce);
}

.register {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 0.4rem;
}

.tag {
  min-height: var(--target);
  padding: 0 0.7rem;
  border: 1.5px solid var(--line-strong);
  border-radius: var(--corner);
  background: var(--card);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}

.tag.away {
  border-style: dashed;
  border-color: var(--brick);
  color: var(--brick);
  text-decoration: line-through;
}
</style>
