<script setup lang="ts">
import type { Schemas } from '@/app/api/client'

/** The pages one by one, as they will print. */
defineProps<{ made: Schemas['SheetMade'] | undefined; refused: string | undefined; picture: string }>()
const page = defineModel<number>({ required: true })
</script>

<template>
  <section class="preview" :aria-label="$t('As it prints')">
    <p v-if="refused" class="warn" role="alert">{{ refused }}</p>
    <template v-else-if="made">
      <div class="turner">
        <button type="button" class="button small" :disabled="page === 1" @click="page -= 1">
          {{ $t('Page before') }}
        </button>
        <span aria-live="polite"
          >{{ $t('page {page} of {pages}', { page, pages: made.pages })
          }}<template v-if="made.keyPages.includes(page)">{{ $t(', answers') }}</template></span
        >
        <button type="button" class="button small" :disabled="page === made.pages" @click="page += 1">
          {{ $t('Next page') }}
        </button>
      </div>
      <!-- A new picture, so that the page before is never shown under the new choice. -->
      <img
        :key="picture"
        :src="picture"
        :alt="$t('{title}, page {page}, as it prints', { title: made.title, page })"
        :style="{ aspectRatio: `${made.paperWidth} / ${made.paperHeight}` }"
      />
    </template>
  </section>
</template>

<style scoped>
.preview {
  position: sticky;
  top: 1rem;
  display: grid;
  gap: 0.6rem;
  justify-items: center;
  padding: 1rem;
  background: var(--paper-deep);
}

.turner {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: center;
  gap: 0.8rem;
}

img {
  display: block;
  max-width: 100%;
  height: min(74vh, 60rem);
  background: #fff;
  box-shadow: 0 1px 4px rgb(29 59 52 / 25%);
}

@media (max-width: 1000px) {
  img {
    height: auto;
    width: 100%;
  }
}
</style>
