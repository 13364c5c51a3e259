<template>
  <main class="station">
    <div class="empty">
      <h2>There is nothing at this address</h2>
      <p>It may have been deleted, or the address was cut short. <RouterLink to="/">See what every display shows now</RouterLink></p>
    </div>
  </main>
</template>
