<script setup lang="ts">
import NoticeStack from '@/ui/NoticeStack.vue'
</script>

<template>
  <RouterView />
  <NoticeStack />
</template>
