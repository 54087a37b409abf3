<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/app/api/client'
import { clock, shortWeekday } from '@/app/dates'

/** For whom pages are printed: nobody, some, a group, or everyone. */
const props = defineProps<{ children: Schemas['ChildName'][]; groups: Schemas['SheetGroup'][]; chosen: string }>()
const emit = defineEmits<{ choose: [string] }>()

const ids = computed(() => new Set(props.chosen.split(',').filter(Boolean)))
const choose = (now: string[]) => emit('choose', now.join(','))
const chooseGroup = (session: number) =>
  choose((props.groups.find((g) => g.sessionId === session)?.children ?? []).map(String))
const turn = (id: string) => choose(ids.value.has(id) ? [...ids.value].filter((c) => c !== id) : [...ids.value, id])
</script>

<template>
  <fieldset class="children">
    <legend>{{ $t('For whom') }}</legend>
    <div class="beside">
      <button type="button" class="button small" @click="choose(children.map((c) => `${c.id}`))">
        {{ $t('Everyone') }}
      </button>
      <button type="button" class="button plain small" @click="choose([])">{{ $t('No names') }}</button>
      <select
        v-if="groups.length"
        class="box"
        :aria-label="$t('A group')"
        value=""
        @change="chooseGroup(Number(($event.target as HTMLSelectElement).value))"
      >
        <option value="" disabled>{{ $t('A group') }}</option>
        <option v-for="g in groups" :key="g.sessionId" :value="g.sessionId">
          {{ shortWeekday(g.day) }} {{ clock(g.start) }}, {{ g.skill }}
        </option>
      </select>
    </div>
    <div class="names">
      <label v-for="c in children" :key="c.id" class="check said"
        ><input type="checkbox" :checked="ids.has(`${c.id}`)" @change="turn(`${c.id}`)" /> {{ c.name }}</label
      >
    </div>
    <p class="small soft">
      {{ $t('Each child’s numbers follow from their record: what was missed lately comes more often.') }}
    </p>
  </fieldset>
</template>

<style scoped>
.children {
  margin: 0.8rem 0 0;
  padding: 0.4rem 0 0;
  min-width: 0;
  border: 0;
  border-top: 1.5px solid var(--ink);
}

select {
  max-width: 100%;
}

legend {
  float: left;
  width: 100%;
  font-weight: 700;
}

legend + .beside {
  clear: both;
}

.names {
  display: grid;
  grid-template-columns: 1fr 1fr;
  margin-top: 0.3rem;
}

.names .check {
  min-height: 36px;
}
</style>
