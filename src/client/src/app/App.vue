<script setup lang="ts">
import ChangedMeanwhile from '@/ui/ChangedMeanwhile.vue'
import NoticeStack from '@/ui/NoticeStack.vue'
</script>

<template>
  <RouterView />
  <NoticeStack />
  <ChangedMeanwhile />
</template>
