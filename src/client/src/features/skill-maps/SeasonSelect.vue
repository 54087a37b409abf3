<script setup lang="ts">
import type { Schemas } from '@/app/api/client'

/** The season in which a skill is usually taught. */
const season = defineModel<Schemas['Season']>({ required: true })
</script>

<template>
  <label class="field">
    <span>{{ $t('Season') }}</span>
    <select v-model="season" class="box">
      <option value="Autumn">{{ $t('autumn') }}</option>
      <option value="Spring">{{ $t('spring') }}</option>
      <option value="Summer">{{ $t('summer') }}</option>
      <option value="Beyond">{{ $t('beyond this year') }}</option>
    </select>
  </label>
</template>
