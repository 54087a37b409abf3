<script setup lang="ts">
import FileUpload, { type FileUploadUploaderEvent } from 'primevue/fileupload'
import { ref, useTemplateRef } from 'vue'

/** One file, chosen or dropped, handed on to be looked at: nothing is sent from here. */
const { label, accept, hint = '' } = defineProps<{ label: string; accept: string; hint?: string }>()
const emit = defineEmits<{ file: [file: File] }>()
const name = ref('')
const upload = useTemplateRef<{ clear: () => void }>('upload')

function handOn(event: FileUploadUploaderEvent) {
  const file = [event.files].flat().at(-1)
  if (!file) return
  // Let go at once: the same file, put right, can be chosen again.
  upload.value?.clear()
  name.value = file.name
  emit('file', file)
}
</script>

<template>
  <!-- Its class is a prop of the library's, which it leaves out here: by its parts instead. -->
  <FileUpload
    ref="upload"
    custom-upload
    auto
    :multiple="false"
    :accept="accept"
    :pt="{ root: { class: ['file-field', { roomy: hint }] }, input: { 'aria-label': label } }"
    @uploader="handOn"
  >
    <template #header="{ chooseCallback }">
      <button type="button" class="button" @click="chooseCallback">{{ label }}</button>
      <b v-if="name" class="file-name">{{ name }}</b>
      <span v-else-if="hint" class="soft small">{{ $t('or drop it here') }}</span>
    </template>
    <template #content><span /></template>
    <template #empty
      ><span v-if="hint" class="soft small">{{ hint }}</span></template
    >
  </FileUpload>
</template>

<style scoped>
.file-field.roomy {
  margin: 0.6rem 0;
  padding: 1rem;
  border: 2px dashed var(--line-strong);
  border-radius: var(--corner);
  background: var(--paper);
}

.file-field.roomy:focus-within,
.file-field.roomy:has([data-p-highlight='true']) {
  border-color: var(--spruce);
  background: var(--spruce-wash);
}
</style>
