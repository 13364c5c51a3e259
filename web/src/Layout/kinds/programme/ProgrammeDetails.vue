<script setup lang="ts">
import type { Element } from '../../designs'

/** The opening of a window: it has no fields of its own. */
defineProps<{ one: Element }>()
</script>

<template>
  <p class="soft small m-0">
    Where this layout is laid above as a window, what the display plays goes on here, fitted in. By itself the opening stays black.
  </p>
</template>
