<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { say } from '@/ui/notices'
import { t } from '@/app/language'
import NumberField from '@/ui/NumberField.vue'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'

/** A kind of thing that only this class has. Its size and what it is made of decide which cautions it brings. */
const props = defineProps<{ cupboard: Schemas['CupboardView'] }>()
const emit = defineEmits<{ done: [] }>()
const queries = useQueryClient()
const { classId } = useAccount()
const kind = ref<Schemas['NewKind']>({
  name: '',
  purpose: props.cupboard.shelves[0]?.purpose ?? 'Counting',
  shape: 'Uneven',
  colour: '',
  material: '',
  length: null,
  width: null,
  height: null,
  contains: [],
  hazards: [],
  count: 10,
})
const shapes: Record<Schemas['ItemShape'], string> = {
  Flat: t('flat and round'),
  Ball: t('ball'),
  Cube: t('with corners'),
  Long: t('long'),
  Uneven: t('uneven'),
}
const hazards: Record<Schemas['Hazard'], string> = {
  RawPulses: t('raw dried pulses'),
  Food: t('food'),
  Magnet: t('magnet'),
  ButtonCell: t('button cell'),
  Glass: t('glass'),
  Hot: t('gets hot'),
  Sharp: t('sharp'),
  Trip: t('lies on the floor'),
}
async function add() {
  await take(
    api.POST('/api/classes/{classId}/cupboard/things', {
      params: { path: { classId: classId.value } },
      body: kind.value,
    }),
  )
  await queries.invalidateQueries()
  say(`${kind.value.name}: in the cupboard.`)
  emit('done')
}
</script>

<template>
  <AskForm class="ruled" :aria-label="$t('A kind of our own')" :send="add">
    <div class="fields">
      <FaultyField name="name" :label="$t('What')"
        ><input v-model="kind.name" type="text" required maxlength="80"
      /></FaultyField>
      <FaultyField name="purpose" :label="$t('What for')"
        ><select v-model="kind.purpose" class="box">
          <option v-for="s in cupboard.shelves" :key="s.purpose" :value="s.purpose">{{ s.name }}</option>
        </select></FaultyField
      >
      <FaultyField name="count" :label="$t('How many')"
        ><NumberField v-model="kind.count" :min="0" required
      /></FaultyField>
      <FaultyField name="colour" :label="$t('Colour')"><input v-model="kind.colour" type="text" /></FaultyField>
      <FaultyField name="material" :label="$t('Made of')"><input v-model="kind.material" type="text" /></FaultyField>
      <FaultyField name="shape" :label="$t('Shape')"
        ><select v-model="kind.shape" class="box">
          <option v-for="(label, value) in shapes" :key="value" :value="value">{{ label }}</option>
        </select></FaultyField
      >
      <div class="field">
        <span>{{ $t('Length, width, height of one in mm') }}</span>
        <div class="beside">
          <NumberField v-model="kind.length" :min="0" parts :label="$t('Length in mm')" />
          <NumberField v-model="kind.width" :min="0" parts :label="$t('Width in mm')" />
          <NumberField v-model="kind.height" :min="0" parts :label="$t('Height in mm')" />
        </div>
      </div>
    </div>
    <fieldset>
      <legend>{{ $t('It holds') }}</legend>
      <label v-for="a in cupboard.allergens" :key="a.allergen" class="check"
        ><input v-model="kind.contains" type="checkbox" :value="a.allergen" /> {{ a.name }}</label
      >
    </fieldset>
    <fieldset>
      <legend>{{ $t('It is') }}</legend>
      <label v-for="(label, value) in hazards" :key="value" class="check"
        ><input v-model="kind.hazards" type="checkbox" :value="value" /> {{ label }}</label
      >
    </fieldset>
    <div class="beside">
      <button class="button main">{{ $t('Put it in the cupboard') }}</button>
      <button type="button" class="button" @click="emit('done')">{{ $t('Leave it') }}</button>
    </div>
  </AskForm>
</template>

<style scoped>
form {
  margin-bottom: 1rem;
  padding-bottom: 1rem;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
  gap: 0 1.2rem;
}

.beside input {
  width: 5.2rem;
}

fieldset {
  border: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0 1rem;
}

legend {
  font-weight: 700;
  font-size: 0.9rem;
}
</style>
