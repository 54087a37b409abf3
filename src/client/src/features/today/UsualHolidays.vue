<script setup lang="ts">
import Checkbox from 'primevue/checkbox'
import { ref, useId, watch } from 'vue'
import { useAccount } from '@/app/account'
import type { Schemas } from '@/app/api/client'
import { dayAndMonth } from '@/app/dates'

/** The weekly lessons, and holidays as they are usual where the school is: taken as they are, or without some. */
const props = defineProps<{ week: string[]; holidays: Schemas['Closure'][] }>()
const emit = defineEmits<{ keep: [first: string[]] }>()
const { classId } = useAccount()
const id = useId()
const taken = ref<string[]>([])
watch(
  () => props.holidays,
  (all) => (taken.value = all.map((h) => h.first)),
  { immediate: true },
)
</script>

<template>
  <form @submit.prevent="emit('keep', taken)">
    <ul class="week">
      <li v-for="line in week" :key="line">{{ line }}</li>
    </ul>
    <template v-if="holidays.length">
      <p class="soft small">{{ $t('No school, as is usual where you are; take out what does not hold for you.') }}</p>
      <div class="days">
        <label v-for="h in holidays" :key="h.first" :for="`${id}-${h.first}`" class="day">
          <Checkbox v-model="taken" :input-id="`${id}-${h.first}`" :value="h.first" />
          <span
            >{{ h.name }}
            <span class="soft small"
              >{{ dayAndMonth(h.first)
              }}{{ h.last === h.first ? '' : ' ' + $t('to {day}', { day: dayAndMonth(h.last) }) }}</span
            ></span
          >
        </label>
      </div>
    </template>
    <div class="buttons">
      <button class="button main">{{ $t('That is how it is') }}</button>
      <RouterLink class="button plain" :to="{ name: 'set-up', params: { classId } }">{{
        $t('Change it in Set-up')
      }}</RouterLink>
    </div>
  </form>
</template>

<style scoped>
.week {
  margin: 0 0 0.6rem;
  padding: 0;
  list-style: none;
}

.days {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(17rem, 1fr));
  gap: 0 1rem;
}

.day {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  min-height: var(--target);
}

.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  margin-top: 0.6rem;
}
</style>
