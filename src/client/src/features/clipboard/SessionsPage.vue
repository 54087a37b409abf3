<script setup lang="ts">
import { computed } from 'vue'
import { useAccount } from '@/app/account'
import { clock, dayAndMonth, weekday } from '@/app/dates'
import { useWeek } from '@/app/week'
import TapStatus from './TapStatus.vue'
import PageError from '@/ui/PageError.vue'
import ChildMarks from '@/ui/ChildMarks.vue'
import EmptyPlace from '@/ui/EmptyPlace.vue'

const { classId, today, records } = useAccount()
const { monday, week, error } = useWeek()

// Today's sessions come first; the rest of the week follows in order.
const days = computed(() => {
  const withGroups = (week.value?.days ?? [])
    .map((d) => ({ day: d.day, slots: d.slots.filter((s) => s.sessionId) }))
    .filter((d) => d.slots.length)
  return [...withGroups.filter((d) => d.day === today.value), ...withGroups.filter((d) => d.day !== today.value)]
})
</script>

<template>
  <div class="page">
    <div class="page-head">
      <h1>{{ $t('Clipboard') }}</h1>
      <span class="soft">{{
        $t('Week of {day}. Choose the group in front of you.', { day: dayAndMonth(monday) })
      }}</span>
    </div>
    <PageError v-if="error" :error="error" />
    <p v-if="!records" class="soft">
      {{ $t('You can look at this class; recording is for its teacher and assistants.') }}
    </p>
    <div v-if="records" role="status"><TapStatus /></div>
    <RouterLink v-if="records" class="anyone" :to="{ name: 'anyone', params: { classId } }">
      <b class="said">{{ $t('Anyone, anything') }}</b> {{ $t('for choice time: a child, a skill, how it went') }}
    </RouterLink>
    <EmptyPlace
      v-if="week && !days.length"
      :what="$t('No groups in this week.')"
      :why="
        $t(
          'Each group that is accepted stands here on its day, with its children in rows to tap. Another week is a bead away on the string.',
        )
      "
      :to="{ name: 'groups', params: { classId } }"
      :action="$t('Form the groups')"
    />
    <section v-for="day in days" :key="day.day" class="ruled">
      <h2>{{ weekday(day.day) }}{{ day.day === today ? $t(', today') : '' }}</h2>
      <RouterLink
        v-for="slot in day.slots"
        :key="slot.slotId"
        class="session"
        :to="{ name: records ? 'record' : 'session', params: { classId, sessionId: slot.sessionId! } }"
      >
        <b class="when">{{ clock(slot.start) }}</b>
        <span>
          <b class="said aim">{{ slot.skill }}</b>
          <ChildMarks class="names" :children="slot.children" />
        </span>
        <span class="soft">{{ slot.adult }}</span>
      </RouterLink>
    </section>
  </div>
</template>

<style scoped>
section {
  max-width: 52rem;
  margin-bottom: 1.2rem;
}

.anyone {
  display: block;
  max-width: 52rem;
  margin: 0.3rem 0 1.1rem;
  padding: 0.9rem 1rem;
  border: 1.5px solid var(--spruce);
  border-radius: var(--corner);
  color: var(--ink);
  text-decoration: none;
}

.anyone b {
  font-size: 1.25rem;
}

.anyone:hover {
  background: var(--spruce-wash);
}

.session {
  display: grid;
  grid-template-columns: 4rem 1fr auto;
  align-items: center;
  gap: 0.6rem;
  min-height: 68px;
  padding: 0.4rem 0.5rem;
  border-bottom: 1px solid var(--line);
  border-radius: var(--corner);
  color: var(--ink);
  text-decoration: none;
}

.session:hover {
  background: var(--spruce-wash);
}

.aim {
  display: block;
  font-size: 1.2rem;
}

.names {
  font-size: 1.05rem;
}
</style>
