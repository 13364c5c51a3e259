<script setup lang="ts">
/** The two rooms of the station: what plays, and what would. */
</script>

<template>
  <nav class="tabs" aria-label="Playback">
    <RouterLink to="/playback">Now</RouterLink>
    <RouterLink to="/rehearsal">Rehearsal</RouterLink>
  </nav>
</template>
