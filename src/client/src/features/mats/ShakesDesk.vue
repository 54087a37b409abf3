<script setup lang="ts">
import { computed } from 'vue'
import { useAccount } from '@/app/account'
import { api } from '@/app/api/client'
import PictureView from '@/mats/PictureView.vue'
import StepNumber from '@/ui/StepNumber.vue'
import MatFrame from './MatFrame.vue'
import MatStage from './MatStage.vue'
import ShareBars from './ShareBars.vue'
import { useAddress, whole } from '@/ui/useAddress'
import { useAsked } from './useAsked'
import { t } from '@/app/language'

/** How likely each split is when things are shaken into wells or dropped over a ring, and how often one has to. */
const { classId } = useAccount()
const { at, put } = useAddress({ into: 'ring', things: '6', wells: '3', inside: '50', apart: '' })
const ring = computed(() => at.value.into === 'ring')
const asked = computed(() => ({
  things: whole(at.value.things, 1, 12, 6),
  wells: ring.value ? undefined : whole(at.value.wells, 2, 4, 3),
  inside: whole(at.value.inside, 5, 95, 50) / 100,
  whereMatters: at.value.apart === '1',
}))
const { data: desk, error } = useAsked('shakes', asked, (params) =>
  api.GET('/api/classes/{classId}/mats/shakes', { params }),
)
const times = (n: number) => (n < 1000 ? String(Math.round(n)) : t('over a thousand'))
const bars = computed(
  () =>
    desk.value?.splits.map((s) => ({
      label: s.split,
      share: s.share,
      note: t('once in {times}', { times: times(s.shakesToSee) }),
    })) ?? [],
)
</script>

<template>
  <MatFrame :name="$t('Tray and ring desk')" :problem="error">
    <MatStage low>
      <PictureView v-if="desk" :picture="desk.picture" fill />
      <template #under
        ><span>{{ $t('The likeliest way to fall') }}</span></template
      >
    </MatStage>
    <section v-if="desk" class="ruled">
      <h2>{{ $t('How they fall') }}</h2>
      <p>{{ desk.toSeeAll }}</p>
      <ShareBars :rows="bars" :caption="$t('Splits and their shares')" />
    </section>
    <template #side>
      <section class="ruled">
        <h2>{{ $t('Into what') }}</h2>
        <label class="check"
          ><input type="radio" name="into" :checked="ring" @change="put({ into: 'ring' })" />
          {{ $t('over a ring') }}</label
        >
        <label class="check"
          ><input type="radio" name="into" :checked="!ring" @change="put({ into: 'wells' })" />
          {{ $t('into wells') }}</label
        >
        <label class="field"
          ><span>{{ $t('Things') }}</span
          ><StepNumber
            :model-value="asked.things"
            :label="$t('Things')"
            :low="1"
            :high="12"
            @update:model-value="put({ things: `${$event}` })"
        /></label>
        <template v-if="ring">
          <label class="field"
            ><span>{{ $t('Of a hundred, so many land inside') }}</span
            ><StepNumber
              :model-value="Math.round(asked.inside * 100)"
              :label="$t('Of a hundred inside')"
              :low="5"
              :high="95"
              :step="5"
              @update:model-value="put({ inside: `${$event}` })"
          /></label>
        </template>
        <template v-else>
          <label class="field"
            ><span>{{ $t('Wells') }}</span
            ><StepNumber
              :model-value="asked.wells ?? 3"
              :label="$t('Wells')"
              :low="2"
              :high="4"
              @update:model-value="put({ wells: `${$event}` })"
          /></label>
          <label class="check"
            ><input
              type="checkbox"
              :checked="asked.whereMatters"
              @change="put({ apart: asked.whereMatters ? '' : '1' })"
            />
            {{ $t('it matters which well') }}</label
          >
        </template>
        <p>
          <RouterLink :to="{ name: 'mat', params: { classId, desk: 'counters', kind: ring ? 'Ring' : 'Tray' } }">{{
            $t('Shake it on the mat')
          }}</RouterLink>
        </p>
      </section>
    </template>
  </MatFrame>
</template>
