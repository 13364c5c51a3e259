<script setup lang="ts">
/** The rooms of the station: what plays, what would, and who works for it. */
</script>

<template>
  <nav class="tabs" aria-label="Playback">
    <RouterLink to="/playback">Now</RouterLink>
    <RouterLink to="/rehearsal">Rehearsal</RouterLink>
    <RouterLink to="/work">Work</RouterLink>
  </nav>
</template>
