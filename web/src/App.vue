<script setup lang="ts">
import { usePreferredDark } from '@vueuse/core'
import { NConfigProvider } from 'naive-ui'
import { computed, onMounted } from 'vue'
import AppBar from './parts/AppBar.vue'
import NoticeBar from './parts/NoticeBar.vue'
import { useNotices } from './remote/notices'
import { useOutbox } from './remote/outbox'
import { useShed } from './remote/shedStore'
import { fetchOtherScreens, router } from './router'
import { darkOverrides, darkTheme, lightOverrides } from './theme/naive'

const dark = usePreferredDark()
const theme = computed(() => (dark.value ? darkTheme : null))
const overrides = computed(() => (dark.value ? darkOverrides : lightOverrides))
const shed = useShed()
const outbox = useOutbox()
const notices = useNotices()
router.onError(() => {
  notices.say('That screen cannot be opened while the shed does not answer.')
})
onMounted(() => {
  void shed.load()
  void outbox.flush()
  void router.isReady().then(() => setTimeout(() => void fetchOtherScreens(), 300))
})
</script>

<template>
  <NConfigProvider :theme="theme" :theme-overrides="overrides" preflight-style-disabled>
    <AppBar />
    <main class="page">
      <RouterView :key="$route.path" />
    </main>
    <NoticeBar />
  </NConfigProvider>
</template>
