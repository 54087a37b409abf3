<script setup lang="ts">
import { computed } from 'vue'
import { useAccount } from '@/app/account'
import type { Schemas } from '@/app/api/client'
import CautionList from '@/ui/CautionList.vue'

/** What to fetch and how many, by the place where it is used, with the cautions that go with it. */
const props = defineProps<{
  day: string
  things: Schemas['TodaySetOut'][]
  cautions: Schemas['Caution'][]
  standing: string
}>()
const { classId } = useAccount()
const settingOut = computed(() => {
  const places = new Map<string, Schemas['TodaySetOut'][]>()
  for (const thing of props.things) places.set(thing.for, [...(places.get(thing.for) ?? []), thing])
  return [...places]
})
</script>

<template>
  <section class="ruled" aria-labelledby="out-head">
    <h2 id="out-head">{{ $t('Set out') }}</h2>
    <template v-for="[place, list] in settingOut" :key="place">
      <h3 class="small soft">{{ place }}</h3>
      <ul class="things">
        <li v-for="thing in list" :key="thing.item">
          <b>{{ thing.amount }}</b> {{ thing.item }}
          <span v-if="thing.short" class="warn small">{{ thing.short }}</span>
        </li>
      </ul>
    </template>
    <details v-if="cautions.length" class="small cautions">
      <summary>
        {{
          $t('Take care: {count} {a} to watch', {
            count: cautions.length,
            a: cautions.length === 1 ? $t('thing') : $t('things'),
          })
        }}
      </summary>
      <CautionList :cautions="cautions" :standing="standing" />
    </details>
    <RouterLink :to="{ name: 'set-out', params: { classId, day } }">{{
      $t('The whole list, what is short, what to print')
    }}</RouterLink>
  </section>
</template>

<style scoped>
.things {
  margin: 0 0 0.4rem;
  padding: 0;
  list-style: none;
}

.things b {
  display: inline-block;
  min-width: 1.9rem;
}

.things .warn {
  display: block;
  margin-left: 1.9rem;
}

.cautions summary {
  min-height: 28px;
  font-weight: 700;
  cursor: pointer;
}

h3 {
  margin-top: 0.4rem;
}
</style>
