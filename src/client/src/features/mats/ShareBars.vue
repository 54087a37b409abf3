<script setup lang="ts">
import { computed } from 'vue'
import { t } from '@/app/language'

/** Shares as bars, the longest as wide as there is room; each says its number. */
const props = defineProps<{ rows: { label: string; share: number; note?: string }[]; caption: string }>()
const most = computed(() => Math.max(...props.rows.map((r) => r.share), 1e-9))
const percent = (share: number) =>
  share >= 0.1 ? `${Math.round(share * 100)} %` : share >= 0.001 ? `${(share * 100).toFixed(1)} %` : t('under 0.1 %')
</script>

<template>
  <table class="bars">
    <caption class="hidden-words">
      {{
        caption
      }}
    </caption>
    <tbody>
      <tr v-for="row in rows" :key="row.label">
        <th scope="row">{{ row.label }}</th>
        <td class="bar"><i :style="{ width: `${(row.share / most) * 100}%` }" /></td>
        <td class="share">{{ percent(row.share) }}</td>
        <td v-if="row.note !== undefined" class="small soft">{{ row.note }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.bars {
  width: 100%;
  border-collapse: collapse;
}

th {
  padding-right: 0.7rem;
  font: 700 1.05rem/1.7 var(--child);
  text-align: right;
  white-space: nowrap;
}

.bar {
  width: 60%;
}

i {
  display: block;
  min-width: 2px;
  height: 1.05rem;
  border: 1.5px solid var(--ink);
  border-radius: 0 4px 4px 0;
  background: var(--marigold);
}

.share {
  padding-left: 0.6rem;
  white-space: nowrap;
}
</style>
