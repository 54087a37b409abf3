<script setup lang="ts">
import type { Schemas } from '@/app/api/client'

/** What stands in the way of taking a file: line, column, reason. */
defineProps<{ faults: Schemas['FileFault'][] }>()
</script>

<template>
  <div v-if="faults.length" role="alert" class="faults">
    <p class="warn">
      {{
        $t('{a} in the way. Nothing was taken.', {
          a: faults.length === 1 ? $t('One thing stands') : $t('{count} things stand', { count: faults.length }),
        })
      }}
    </p>
    <ul>
      <li v-for="(fault, i) in faults.slice(0, 12)" :key="i">
        {{ $t('Line {row}', { row: fault.row }) }}<template v-if="fault.column">, {{ fault.column }}</template
        >: {{ fault.reason }}
      </li>
    </ul>
  </div>
</template>
