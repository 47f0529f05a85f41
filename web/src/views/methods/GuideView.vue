<script setup lang="ts">
// The user's guide: a page for each place, opened at the one that somebody came from.
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { guideOf } from '../../guide'
import HandbookView from './HandbookView.vue'

const { part } = defineProps<{ part?: string }>()
const route = useRoute()
const page = computed(() => part || guideOf(String(route.query.at ?? '')).replace('/guide/', ''))
</script>

<template>
  <HandbookView :part="page" guide />
</template>
