<script setup lang="ts">
import type { Schemas } from '@/app/api/client'

/** The season in which a skill is usually taught. */
const season = defineModel<Schemas['Season']>({ required: true })
</script>

<template>
  <label class="field">
    <span>Season</span>
    <select v-model="season" class="box">
      <option value="Autumn">autumn</option>
      <option value="Spring">spring</option>
      <option value="Summer">summer</option>
      <option value="Beyond">beyond this year</option>
    </select>
  </label>
</template>
