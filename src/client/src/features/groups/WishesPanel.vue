<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import Select from 'primevue/select'
import { computed, ref } from 'vue'
import { api, take, type Schemas } from '@/app/api/client'
import { sayError } from '@/ui/notices'

/** What groups have to keep to: sizes, everyone at least once, pairs apart or together. */
const props = defineProps<{ classId: number; wishes: Schemas['PairWishView'][] }>()
const emit = defineEmits<{ changed: [] }>()
const model = defineModel<Schemas['GroupWishes']>({ required: true })

const { data: grid } = useQuery({
  queryKey: ['grid', () => props.classId],
  queryFn: () => take(api.GET('/api/classes/{classId}/grid', { params: { path: { classId: props.classId } } })),
})
const children = computed(() => grid.value?.children.map((c) => ({ id: c.id, name: c.name })) ?? [])
const first = ref<number>()
const second = ref<number>()

async function add(together: boolean) {
  if (!first.value || !second.value) return
  try {
    await take(
      api.POST('/api/classes/{classId}/pair-wishes', {
        params: { path: { classId: props.classId } },
        body: { first: first.value, second: second.value, together },
      }),
    )
    first.value = second.value = undefined
    emit('changed')
  } catch (problem) {
    sayError(problem)
  }
}

async function remove(wish: Schemas['PairWishView']) {
  try {
    await take(
      api.DELETE('/api/classes/{classId}/pair-wishes/{first}/{second}', {
        params: { path: { classId: props.classId, first: wish.first, second: wish.second } },
      }),
    )
    emit('changed')
  } catch (problem) {
    sayError(problem)
  }
}
</script>

<template>
  <section class="ruled" aria-labelledby="wishes-head">
    <h2 id="wishes-head">Wishes for the next proposal</h2>
    <div class="row">
      <label>From <input v-model.number="model.minSize" type="number" min="2" :max="model.maxSize" /></label>
      <label>to <input v-model.number="model.maxSize" type="number" :min="model.minSize" max="6" /> children</label>
      <label class="check"
        ><input v-model="model.everyoneOnce" type="checkbox" /> Everyone at least once if it can be</label
      >
    </div>
    <div class="row">
      <Select
        v-model="first"
        :options="children"
        option-label="name"
        option-value="id"
        placeholder="A child"
        aria-label="A child"
        filter
      />
      and
      <Select
        v-model="second"
        :options="children"
        option-label="name"
        option-value="id"
        placeholder="another"
        aria-label="Another child"
        filter
      />
      <button type="button" class="button" :disabled="!first || !second || first === second" @click="add(false)">
        Keep apart
      </button>
      <button type="button" class="button" :disabled="!first || !second || first === second" @click="add(true)">
        Keep together
      </button>
    </div>
    <p v-for="wish in wishes" :key="`${wish.first}-${wish.second}`">
      <b class="said">{{ wish.names }}</b> {{ wish.together ? 'together' : 'apart' }}
      <button type="button" class="button plain small" @click="remove(wish)">Let go</button>
    </p>
  </section>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.7rem;
  margin: 0.6rem 0;
}

.row input[type='number'] {
  width: 4rem;
}
</style>
