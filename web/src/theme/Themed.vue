<script setup lang="ts">
import { usePreferredDark } from '@vueuse/core'
import { darkTheme, NConfigProvider } from 'naive-ui'
import { computed } from 'vue'
import { darkOverrides, lightOverrides } from './naive'

/** What uses the component library stands in here: it has Undercliff's looks, by day and by night. */
const dark = usePreferredDark()
const theme = computed(() => (dark.value ? darkTheme : null))
const overrides = computed(() => (dark.value ? darkOverrides : lightOverrides))
</script>

<template>
  <NConfigProvider :theme="theme" :theme-overrides="overrides" preflight-style-disabled abstract
    ><slot
  /></NConfigProvider>
</template>
