<template>
  <main class="p-8">
    <h1 class="text-xl">There is no view at this address.</h1>
    <RouterLink to="/" class="link">To the floor: all jobs</RouterLink>
  </main>
</template>
