<script setup lang="ts">
import { computed } from 'vue'
import { useAccount } from '@/app/account'
import { api, type Schemas } from '@/app/api/client'
import PictureView from '@/mats/PictureView.vue'
import StepNumber from '@/ui/StepNumber.vue'
import MatFrame from './MatFrame.vue'
import MatStage from './MatStage.vue'
import { useAddress, whole } from '@/ui/useAddress'
import { useAsked } from './useAsked'
import { t } from '@/app/language'
import NumberField from '@/ui/NumberField.vue'

/** A jar and things: how many it holds, what to put in next, and the count laid out in heaps of ten. */
const { classId } = useAccount()
const { at, put } = useAddress({
  jar: '1000',
  shape: 'Ball',
  across: '20',
  thick: '10',
  last: '',
  low: '10',
  high: '100',
  nineties: '',
  count: '',
  expected: '',
  found: '',
})
const number = (text: string) => (text === '' ? undefined : whole(text, 0, 9999, 0))
const asked = computed(() => ({
  jarMl: whole(at.value.jar, 1, 20_000, 1000),
  shape: at.value.shape as Schemas['ThingShape'],
  across: whole(at.value.across, 1, 100, 20),
  thick: whole(at.value.thick, 1, 100, 10),
  last: number(at.value.last),
  low: whole(at.value.low, 1, 300, 10),
  high: Math.max(whole(at.value.low, 1, 300, 10), whole(at.value.high, 1, 300, 100)),
  countedNineties: at.value.nineties === '1',
  expectedBefore: number(at.value.expected),
  countedBefore: number(at.value.found),
  count: number(at.value.count),
}))
const { data: desk, error } = useAsked('jar', asked, (params) => api.GET('/api/classes/{classId}/mats/jar', { params }))
const shapes: Record<Schemas['ThingShape'], string> = {
  Ball: t('balls'),
  Disc: t('flat and round'),
  Cube: t('cubes'),
  Mixed: t('of several shapes'),
}
</script>

<template>
  <MatFrame :name="$t('Guess jar')" :problem="error">
    <MatStage>
      <PictureView v-if="desk" :picture="desk.heaps" fill />
      <template #under
        ><b v-if="desk">{{ desk.heapsInWords }}</b></template
      >
    </MatStage>
    <section v-if="desk" class="ruled">
      <h2>{{ $t('Next time') }}</h2>
      <p>
        <RouterLink :to="{ name: 'jar', params: { classId } }">{{
          $t('The class’s own jar, with its guesses')
        }}</RouterLink>
      </p>
      <p class="next said">{{ desk.next.reason }}</p>
      <p>{{ desk.holdsInWords }}</p>
      <p v-if="desk.caution" class="caution small">{{ desk.caution }}</p>
    </section>
    <template #side>
      <section class="ruled">
        <h2>{{ $t('The jar and the things') }}</h2>
        <label class="field"
          ><span>{{ $t('Jar, in millilitres') }}</span
          ><NumberField
            :min="1"
            :max="20000"
            :model-value="asked.jarMl"
            @update:model-value="put({ jar: `${$event ?? ''}` })"
        /></label>
        <label class="field"
          ><span>{{ $t('Things') }}</span>
          <select class="box" :value="at.shape" @change="put({ shape: ($event.target as HTMLSelectElement).value })">
            <option v-for="(name, shape) in shapes" :key="shape" :value="shape">{{ name }}</option>
          </select></label
        >
        <label class="field"
          ><span>{{ $t('Across, in millimetres') }}</span
          ><StepNumber
            :model-value="asked.across"
            :label="$t('Across')"
            :low="1"
            :high="100"
            @update:model-value="put({ across: `${$event}` })"
        /></label>
        <label v-if="at.shape === 'Disc'" class="field"
          ><span>{{ $t('Thick, in millimetres') }}</span
          ><StepNumber
            :model-value="asked.thick"
            :label="$t('Thick')"
            :low="1"
            :high="100"
            @update:model-value="put({ thick: `${$event}` })"
        /></label>
      </section>
      <section class="ruled">
        <h2>{{ $t('The class') }}</h2>
        <div class="beside">
          <StepNumber
            :model-value="asked.low"
            :label="$t('Amounts from')"
            :low="1"
            :high="300"
            @update:model-value="put({ low: `${$event}` })"
          />
          <StepNumber
            :model-value="asked.high"
            :label="$t('Amounts to')"
            :low="1"
            :high="300"
            @update:model-value="put({ high: `${$event}` })"
          />
        </div>
        <label class="field"
          ><span>{{ $t('In the jar last time') }}</span
          ><NumberField
            :min="1"
            :max="300"
            :model-value="asked.last"
            :placeholder="$t('first jar')"
            @update:model-value="put({ last: `${$event ?? ''}` })"
        /></label>
        <label class="check"
          ><input
            type="checkbox"
            :checked="asked.countedNineties"
            @change="put({ nineties: asked.countedNineties ? '' : '1' })"
          />
          {{ $t('has counted out ninety-some') }}</label
        >
      </section>
      <section class="ruled">
        <h2>{{ $t('Counted') }}</h2>
        <label class="field"
          ><span>{{ $t('Opening day: how many were there?') }}</span
          ><NumberField
            :min="0"
            :max="300"
            :model-value="asked.count"
            @update:model-value="put({ count: `${$event ?? ''}` })"
        /></label>
        <p class="small soft">{{ $t('A full jar that you counted yourselves corrects what is expected of it:') }}</p>
        <div class="beside">
          <label class="field"
            ><span>{{ $t('Expected') }}</span
            ><NumberField
              :min="1"
              :model-value="asked.expectedBefore"
              @update:model-value="put({ expected: `${$event ?? ''}` })"
          /></label>
          <label class="field"
            ><span>{{ $t('Counted') }}</span
            ><NumberField
              :min="1"
              :model-value="asked.countedBefore"
              @update:model-value="put({ found: `${$event ?? ''}` })"
          /></label>
        </div>
      </section>
    </template>
  </MatFrame>
</template>

<style scoped>
.next {
  font-size: 1.25rem;
}

.caution {
  border-left: 4px solid var(--brick);
  padding-left: 0.7rem;
}

.field input {
  width: 9rem;
}

.beside .field input {
  width: 6rem;
}
</style>
