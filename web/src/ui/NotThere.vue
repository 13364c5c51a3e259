<template>
  <div class="station">
    <div class="empty">
      <h2>There is nothing at this address</h2>
      <p>It may have been deleted, or the address is incomplete. <RouterLink to="/">Go to today</RouterLink></p>
    </div>
  </div>
</template>
