<template>
  <main class="nowhere">
    <h1>{{ $t('There is no bead here') }}</h1>
    <p>{{ $t('This page does not exist, or the class is not one of yours.') }}</p>
    <RouterLink class="button" to="/sign-in">{{ $t('Back to the string') }}</RouterLink>
  </main>
</template>

<style scoped>
.nowhere {
  max-width: 32rem;
  margin: 18vh auto 0;
  padding: 0 1.5rem;
}
</style>
