<template>
  <div class="page stack">
    <h1>Not here</h1>
    <p>There is no page at this address. It may have been moved or mistyped.</p>
    <p><RouterLink to="/horses">To the horses</RouterLink></p>
  </div>
</template>
