<script setup lang="ts">
/** The two rooms of the station: what plays in order, and what plays when. */
</script>

<template>
  <nav class="tabs" aria-label="Playlists and time">
    <RouterLink to="/playlists">Playlists</RouterLink>
    <RouterLink to="/schedules">Schedules</RouterLink>
  </nav>
</template>

<style scoped>
.tabs {
  display: flex;
  border: 1px solid var(--ink);
}
.tabs a {
  padding: 5px 12px;
  color: var(--ink);
  text-decoration: none;
}
.tabs a + a {
  border-left: 1px solid var(--rule);
}
.tabs .router-link-active {
  background: var(--kelp-wash);
  font-weight: 650;
}
</style>
