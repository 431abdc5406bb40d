<template><main class="p-5">…</main></template>
