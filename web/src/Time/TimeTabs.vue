<script setup lang="ts">
/** The two rooms of the station: what plays in order, and what plays when. */
</script>

<template>
  <nav class="tabs" aria-label="Playlists and time">
    <RouterLink to="/playlists">Playlists</RouterLink>
    <RouterLink to="/schedules">Schedules</RouterLink>
  </nav>
</template>
