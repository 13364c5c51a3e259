<script setup lang="ts">
/** The two rooms of the station: what answers by itself, and what somebody presses. */
</script>

<template>
  <nav class="tabs" aria-label="Triggers">
    <RouterLink to="/triggers" exact-active-class="router-link-active" active-class="">Maps</RouterLink>
    <RouterLink to="/triggers/panels">Panels</RouterLink>
  </nav>
</template>
