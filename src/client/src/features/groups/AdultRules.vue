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

type Change = Schemas['AdultGroupsChange']

/** What is to change of what is kept when it goes: another tick may wait before it. */
const set = (id: number, part: (now: Adult) => Partial<Change>) =>
  props.change(() => {
    const now = props.wishes.adults.find((a) => a.id === id)!
    return take(
      api.PUT('/api/classes/{classId}/adults/{adultId}/groups', {
        params: { path: { classId: props.classId, adultId: id } },
        body: { strands: now.strands, most: now.most, ...part(now) },
      }),
    )
  })

// None ticked means all: the first tick leaves the others out, the last one that is taken away lets all in again.
const toggle = (id: number, strand: string) =>
  set(id, ({ strands }) => {
    if (strands.includes(strand)) return { strands: strands.filter((s) => s !== strand) }
    const more = [...strands, strand]
    return { strands: more.length === props.wishes.strands.length ? [] : more }
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
        <input type="checkbox" :checked="adult.strands.includes(strand.id)" @change="toggle(adult.id, strand.id)" />
        {{ strand.name }}
      </label>
      <label class="most"
        >{{ $t('At most') }}
        <NumberField
          :min="0"
          :max="50"
          placeholder="–"
          :model-value="adult.most"
          @update:model-value="set(adult.id, () => ({ most: $event ?? null }))"
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
