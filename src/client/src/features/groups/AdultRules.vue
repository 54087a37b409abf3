<script setup lang="ts">
import { api, take, type Schemas } from '@/app/api/client'
import NumberField from '@/ui/NumberField.vue'

/** Which adult takes groups on what, and how many a week. */
const props = defineProps<{
  classId: number
  wishes: Schemas['GroupWishesView']
  change: (deed: () => Promise<unknown>) => Promise<void>
}>()
type Adult = Schemas['AdultGroupsView']

const set = (adult: Adult, part: Partial<Schemas['AdultGroupsChange']>) =>
  props.change(() =>
    take(
      api.PUT('/api/classes/{classId}/adults/{adultId}/groups', {
        params: { path: { classId: props.classId, adultId: adult.id } },
        body: { strands: adult.strands, most: adult.most, ...part },
      }),
    ),
  )

// None ticked means all: the first tick leaves the others out, the last one that is taken away lets all in again.
const toggle = (adult: Adult, strand: string) =>
  set(adult, {
    strands: adult.strands.includes(strand)
      ? adult.strands.filter((s) => s !== strand)
      : [...adult.strands, strand].length === props.wishes.strands.length
        ? []
        : [...adult.strands, strand],
  })
</script>

<template>
  <div>
    <h3>{{ $t('Who takes which groups') }}</h3>
    <fieldset v-for="adult in wishes.adults" :key="adult.id">
      <legend>
        <b>{{ adult.name }}</b>{{ ' ' }}
        <span class="soft small">{{ $t('{places} places a week', { places: adult.places }) }}</span>
      </legend>
      <p class="small soft">
        {{ adult.strands.length ? $t('Takes groups on these only:') : $t('Takes groups on anything.') }}
      </p>
      <label v-for="strand in wishes.strands" :key="strand.id" class="check">
        <input type="checkbox" :checked="adult.strands.includes(strand.id)" @change="toggle(adult, strand.id)" />
        {{ strand.name }}
      </label>
      <label class="most"
        >{{ $t('At most') }}
        <NumberField
          :min="0"
          :max="50"
          placeholder="–"
          :model-value="adult.most"
          @update:model-value="
            set(adult, {
              most: $event ?? null,
            })
          "
        />
        {{ $t('groups a week') }}</label
      >
    </fieldset>
  </div>
</template>

<style scoped>
fieldset {
  margin: 0 0 0.8rem;
  padding: 0.4rem 0 0;
  border: 0;
  border-top: 1px solid var(--line);
}

.check {
  margin-right: 1rem;
}

.most {
  display: block;
}

input[type='number'] {
  width: 4.2rem;
}
</style>
