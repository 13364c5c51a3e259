<script setup lang="ts">
/** The two rooms of the Bench: what sources tell, and what happens before a display. */
</script>

<template>
  <nav class="tabs" aria-label="Bench">
    <RouterLink to="/bench" exact-active-class="router-link-active">Feeds</RouterLink>
    <RouterLink to="/bench/before">Before a display</RouterLink>
  </nav>
</template>
