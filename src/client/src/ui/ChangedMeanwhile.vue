<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import { answerOffer, offer } from './changed'

/** Somebody else was faster: says what has changed, and offers to do it all the same on top of that. */
const dialog = ref<HTMLDialogElement>()
watch(offer, async (open) => {
  await nextTick()
  if (open) dialog.value?.showModal()
  else dialog.value?.close()
})
</script>

<template>
  <dialog ref="dialog" class="meanwhile" aria-labelledby="changed-title" @cancel.prevent="answerOffer(false)">
    <template v-if="offer">
      <h2 id="changed-title">{{ $t('Changed in the meantime') }}</h2>
      <p>{{ offer.sentence }}</p>
      <ul v-if="offer.changes.length">
        <li v-for="change in offer.changes" :key="change">{{ change }}</li>
      </ul>
      <p class="soft">{{ $t('What you see behind this is how it stands now.') }}</p>
      <div class="choices">
        <button type="button" class="button" @click="answerOffer(false)">{{ $t('Leave it as it is now') }}</button>
        <button type="button" class="button main" @click="answerOffer(true)">{{ $t('Do mine on top of it') }}</button>
      </div>
    </template>
  </dialog>
</template>

<style scoped>
.meanwhile {
  max-width: 34rem;
  padding: 1.2rem 1.4rem;
  border: 1.5px solid var(--ink);
  border-radius: var(--corner);
  background: var(--paper);
  color: var(--ink);
}

.meanwhile::backdrop {
  background: rgb(0 0 0 / 35%);
}

.meanwhile h2 {
  margin-top: 0;
}

.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  justify-content: flex-end;
}
</style>
