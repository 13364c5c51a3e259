<template>
  <div class="form"><slot /></div>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 14px;
  padding: 10px 14px 14px;
  align-items: end;
  border-top: 1px solid var(--rule);
}
.form :deep(textarea),
.form :deep(.wide) {
  grid-column: 1 / 3;
}
.form :deep(label) {
  font-size: 0.8125rem;
  color: var(--soft);
  margin: 0;
}
.form :deep(label .figure) {
  font-family: var(--figures);
  font-size: 0.8125rem;
  color: var(--ink);
  margin: 3px 0;
}
.form :deep(fieldset) {
  border: 0;
  margin: 0;
  min-width: 0;
}
.form :deep(.guides .figure) {
  font-family: var(--figures);
  font-size: 0.8125rem;
}
</style>
