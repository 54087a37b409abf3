<script setup lang="ts">
/** Why something was chosen: folded away until it is asked for. */
defineProps<{ reasons: { of?: string; why: string }[] }>()
</script>

<template>
  <details class="why-fold small">
    <summary>{{ $t('Why') }}</summary>
    <p v-for="(reason, i) in reasons.filter((r) => r.why)" :key="i">
      <b v-if="reason.of" class="said">{{ reason.of }}</b> {{ reason.why }}
    </p>
  </details>
</template>

<style scoped>
.why-fold summary {
  width: max-content;
  min-height: 28px;
  padding-right: 0.6rem;
  color: var(--ink-soft);
  cursor: pointer;
}

.why-fold p {
  margin: 0 0 0.3rem;
  color: var(--ink-soft);
}
</style>
