<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { representationLabel } from '@/ui/marks'
import { say } from '@/ui/notices'
import SeasonSelect from './SeasonSelect.vue'
import { t } from '@/app/language'
import MultiSelect from 'primevue/multiselect'
import NumberField from '@/ui/NumberField.vue'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'

/** A skill of the school's own. */
const props = defineProps<{ map: Schemas['MapView'] }>()
const emit = defineEmits<{ done: [id: string] }>()
const queries = useQueryClient()
const { classId } = useAccount()
const kinds: Schemas['Representation'][] = ['Objects', 'Fingers', 'Picture', 'Spoken', 'Symbols']
const skill = ref<Schemas['NewMapSkill']>({
  strand: props.map.strands[0]?.id ?? 'count',
  short: '',
  iCan: t('I can') + ' ',
  needs: [],
  when: 'Summer',
  low: 1,
  high: 10,
  shownIn: ['Objects'],
  lookFor: '',
  slip: '',
  way: '',
  words: [],
})
const words = ref('')

async function add() {
  const added = await take(
    api.POST('/api/classes/{classId}/map/skills', {
      params: { path: { classId: classId.value } },
      body: { ...skill.value, words: words.value.split(',') },
    }),
  )
  await queries.invalidateQueries()
  say(t('{short} is on the map.', { short: skill.value.short }))
  emit('done', added.id)
}
</script>

<template>
  <AskForm class="ruled" :aria-label="$t('A skill of our own')" :send="add">
    <h2>{{ $t('A skill of our own') }}</h2>
    <div class="fields">
      <FaultyField name="short" :label="$t('Name')"
        ><input v-model="skill.short" type="text" required maxlength="40"
      /></FaultyField>
      <FaultyField name="iCan" :label="$t('The child says')"
        ><input v-model="skill.iCan" type="text" required maxlength="120"
      /></FaultyField>
      <FaultyField name="strand" :label="$t('Strand')"
        ><select v-model="skill.strand" class="box">
          <option v-for="s in map.strands" :key="s.id" :value="s.id">{{ s.name }}</option>
        </select></FaultyField
      >
      <SeasonSelect v-model="skill.when" />
      <div class="field">
        <span aria-hidden="true">{{ $t('Needs') }}</span>
        <MultiSelect
          v-model="skill.needs"
          :options="map.skills"
          option-value="id"
          option-label="short"
          :aria-label="$t('Needs')"
          :placeholder="$t('nothing')"
          filter
          auto-filter-focus
          :show-toggle-all="false"
          display="chip"
        />
      </div>
      <div class="field">
        <span>{{ $t('Numbers') }}</span>
        <div class="beside">
          <FaultyField name="low"
            ><NumberField v-model="skill.low" :min="0" :max="999" :label="$t('Smallest number')" required
          /></FaultyField>
          <FaultyField name="high"
            ><NumberField v-model="skill.high" :min="0" :max="999" :label="$t('Largest number')" required
          /></FaultyField>
        </div>
      </div>
      <fieldset class="field">
        <legend>{{ $t('Shown with') }}</legend>
        <label v-for="k in kinds" :key="k" class="check"
          ><input v-model="skill.shownIn" type="checkbox" :value="k" /> {{ representationLabel(k) }}</label
        >
      </fieldset>
      <FaultyField name="lookFor" :label="$t('What to look for')"
        ><input v-model="skill.lookFor" type="text" required
      /></FaultyField>
      <FaultyField name="slip" :label="$t('A usual slip')"
        ><input v-model="skill.slip" type="text" required
      /></FaultyField>
      <FaultyField name="way" :label="$t('A way of doing it')"
        ><input v-model="skill.way" type="text" required
      /></FaultyField>
      <FaultyField name="words" :label="$t('Words, with commas')"
        ><input v-model="words" type="text" required
      /></FaultyField>
    </div>
    <div class="beside">
      <button class="button main">{{ $t('Put it on the map') }}</button>
      <button type="button" class="button" @click="emit('done', '')">{{ $t('Leave it') }}</button>
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
  grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
  gap: 0 1.2rem;
}

fieldset {
  border: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.8rem;
  align-content: start;
}

legend {
  font-weight: 700;
  font-size: 0.9rem;
}

select[multiple] {
  height: 6.5rem;
}

.beside input {
  width: 6rem;
}
</style>
