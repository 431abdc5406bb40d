<script setup lang="ts">
import CutPicture from './CutPicture.vue'
import DialPicture from './DialPicture.vue'
import DropPicture from './DropPicture.vue'
import FactsPicture from './FactsPicture.vue'
import HolesPicture from './HolesPicture.vue'
import LanePicture from './LanePicture.vue'
import type { Picture } from './pictures'
import PlotPicture from './PlotPicture.vue'
import RingPicture from './RingPicture.vue'
import WallPicture from './WallPicture.vue'

/** One picture of an exercise, by its kind. */
defineProps<{ picture: Picture; seconds: number }>()
</script>

<template>
  <DialPicture v-if="picture.kind === 'dial'" :dial="picture" :value="picture.value_m" />
  <RingPicture v-else-if="picture.kind === 'ring'" :ring="picture" />
  <PlotPicture v-else-if="picture.kind === 'plot'" :plot="picture" />
  <HolesPicture v-else-if="picture.kind === 'holes'" :row="picture" />
  <FactsPicture v-else-if="picture.kind === 'facts'" :sheet="picture" />
  <CutPicture v-else-if="picture.kind === 'cut'" :cut="picture" />
  <DropPicture v-else-if="picture.kind === 'drop'" :drop="picture" :seconds="seconds" />
  <WallPicture v-else-if="picture.kind === 'wall'" :wall="picture" />
  <LanePicture v-else :lane="picture" />
</template>
