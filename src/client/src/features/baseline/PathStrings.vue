<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/app/api/client'
import { beadSays, STEP, strandsOf } from './path'

/** The result as a path along the map: a string a strand, thick as far as the child likely is. */
const props = defineProps<{ path: Schemas['PathSkill'][]; reach: Schemas['ReachView'][]; chosen?: string }>()
const emit = defineEmits<{ choose: [skill: string] }>()
const strands = computed(() => strandsOf(props.path, props.reach))
const width = computed(() => STEP * Math.max(1, ...strands.value.map((s) => s.beads.length)))
</script>

<template>
  <div class="strings">
    <div v-for="strand in strands" :key="strand.id" class="strand">
      <b>{{ strand.name }}</b> <span class="small soft">{{ strand.sentence }}</span>
      <div class="string" role="list" :style="{ '--end': `${strand.end}px`, maxWidth: `${width}px` }">
        <button
          v-for="bead in strand.beads"
          :key="bead.skill.id"
          v-tooltip.top="beadSays(bead)"
          type="button"
          role="listitem"
          :class="['bead', bead.look, { chosen: chosen === bead.skill.id }]"
          :aria-label="beadSays(bead)"
          @click="emit('choose', bead.skill.id)"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.strand {
  margin-bottom: 0.5rem;
}

.string {
  position: relative;
  display: flex;
  flex-wrap: wrap;
}

.string::before,
.string::after {
  content: '';
  position: absolute;
  top: 12px;
  left: 0;
  right: 0;
  height: 1.5px;
  background: var(--line-strong);
}

.string::after {
  right: auto;
  width: var(--end);
  top: 11px;
  height: 4px;
  background: var(--spruce);
}

.bead {
  position: relative;
  z-index: 1;
  flex: none;
  width: 20px;
  height: 26px;
  padding: 0;
  border: 0;
  background: none;
  cursor: pointer;
}

.bead::before {
  content: '';
  display: block;
  width: 14px;
  height: 14px;
  margin: auto;
  border: 2px solid var(--ink);
  border-radius: 50%;
  background: var(--card);
}

.bead.right::before,
.bead.known::before {
  background: var(--ink);
}

.bead.likely::before {
  border-style: dotted;
  background: var(--spruce-wash);
}

.bead.unlikely::before {
  width: 8px;
  height: 8px;
  border-width: 1.5px;
  border-color: var(--line-strong);
}

.bead.wrong::before,
.bead.denied::before {
  background: linear-gradient(45deg, transparent 44%, var(--ink) 44% 56%, transparent 56%) var(--card);
}

.bead.known::before,
.bead.denied::before {
  border-radius: 3px;
}

.bead.chosen::after {
  content: '';
  position: absolute;
  inset: 0 0 2px;
  border: 2px solid var(--spruce);
  border-radius: 5px;
}
</style>
