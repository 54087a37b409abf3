<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useAccount } from '@/app/account'
import { api, take, type Schemas } from '@/app/api/client'
import { say, sayError } from '@/ui/notices'
import SeasonSelect from './SeasonSelect.vue'
import { t } from '@/app/language'
import LongSelect from '@/ui/LongSelect.vue'
import AskForm from '@/ui/AskForm.vue'
import FaultyField from '@/ui/FaultyField.vue'

/** What the school does differently with a skill: season, links, words, or leaving it out. */
const props = defineProps<{ skill: Schemas['MapSkillView']; map: Schemas['MapView'] }>()
const emit = defineEmits<{ done: [] }>()
const queries = useQueryClient()
const { classId } = useAccount()
const written = ref({ ...props.skill.written, needs: [...props.skill.written.needs] })
const words = ref(props.skill.written.words.join(', '))
const adding = ref('')
const names = computed(() => new Map(props.map.skills.map((s) => [s.id, s.short])))
const path = computed(() => ({ path: { classId: classId.value, skillId: props.skill.id } }))

async function change(call: Promise<unknown>, done: string) {
  await call
  await queries.invalidateQueries()
  say(done)
  emit('done')
}
const keep = () =>
  change(
    take(
      api.PUT('/api/classes/{classId}/map/skills/{skillId}', {
        params: path.value,
        body: { ...written.value, words: words.value.split(',') },
      }),
    ),
    t('The map is kept.'),
  )
const takeBack = () =>
  change(
    take(api.DELETE('/api/classes/{classId}/map/skills/{skillId}/change', { params: path.value })),
    props.skill.own ? t('The skill is gone.') : t('The skill is as it came.'),
  )
function link() {
  if (adding.value && !written.value.needs.includes(adding.value)) written.value.needs.push(adding.value)
  adding.value = ''
}
</script>

<template>
  <AskForm class="change" :aria-label="$t('Change this skill')" :send="keep">
    <FaultyField name="short" :label="$t('Name')"
      ><input v-model="written.short" type="text" required maxlength="40"
    /></FaultyField>
    <FaultyField name="iCan" :label="$t('The child says')"
      ><input v-model="written.iCan" type="text" required maxlength="120"
    /></FaultyField>
    <SeasonSelect v-model="written.when" />
    <div class="field">
      <span>{{ $t('Needs') }}</span>
      <p v-for="need in written.needs" :key="need" class="need">
        {{ names.get(need) }}
        <button
          type="button"
          class="button plain small"
          :aria-label="$t('Take out {get}', { get: names.get(need) })"
          @click="written.needs = written.needs.filter((n) => n !== need)"
        >
          {{ $t('Take out') }}
        </button>
      </p>
      <LongSelect
        v-model="adding"
        :label="$t('Add a skill that it needs')"
        :none="$t('Add one')"
        :options="map.skills.map((k) => ({ value: k.id, label: k.short }))"
        @update:model-value="link"
      />
    </div>
    <FaultyField name="words" :label="$t('Words, with commas')"
      ><input v-model="words" type="text" required
    /></FaultyField>
    <label class="check"
      ><input v-model="written.hidden" type="checkbox" /> {{ $t('Leave it out of our plans') }}</label
    >
    <p v-if="`${written.short}${written.iCan}${words}`.includes('{')" class="soft small">
      {{ $t('A word in braces stands for the class’s own, such as fewer or less.') }}
    </p>
    <div class="beside">
      <button class="button main">{{ $t('Keep') }}</button>
      <button type="button" class="button" @click="emit('done')">{{ $t('Leave as it is') }}</button>
      <button v-if="skill.changed" type="button" class="button plain" @click="takeBack().catch(sayError)">
        {{ skill.own ? $t('Remove this skill') : $t('Back to how it came') }}
      </button>
    </div>
  </AskForm>
</template>

<style scoped>
.change {
  margin-top: 1rem;
  border-top: 1px solid var(--line-strong);
}

.need {
  display: flex;
  align-items: center;
  justify-content: space-between;
  margin: 0;
}

select.box {
  width: 100%;
}
</style>
