<script setup lang="ts">
import { useMeStore } from '~/stores/me';

/** The frame of every screen: rail on the left, where you are on top, the screen in the middle. */
const me = useMeStore();
const isFinding = ref(false);
const listingKeys = ref(false);

/** What is typed while the search opens belongs to it, not to what has the focus still. */
const typedAhead = ref('');
const isReady = ref(false);
watch(isFinding, () => ([typedAhead.value, isReady.value] = ['', false]));
useEventListener(
  'keydown',
  (event) => {
    if (!isFinding.value || isReady.value || event.ctrlKey || event.metaKey) return;
    if (event.key === 'Escape') return void (isFinding.value = false);
    if (event.key.length > 1) return;
    event.preventDefault();
    event.stopPropagation();
    typedAhead.value += event.key;
  },
  { capture: true },
);

useKeys({
  'Control+k': () => (isFinding.value = true),
  '?': () => (listingKeys.value = true),
});
</script>

<template>
  <div class="frame">
    <AppRail />
    <header class="top">
      <div id="where" class="where"><!-- each screen says here where one is --></div>
      <button type="button" class="find" aria-keyshortcuts="Control+K" @click="isFinding = true">
        Find anything <kbd>Ctrl K</kbd>
      </button>
    </header>
    <main class="screen"><slot /></main>
    <LazyFindAnything v-if="isFinding" v-model:open="isFinding" :typed="typedAhead" @ready="isReady = true" />
    <LazyAllKeys v-if="listingKeys" v-model:open="listingKeys" />
    <LazySignInAgain v-if="me.waiting" />
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  grid-template: 48px minmax(0, 1fr) / 64px minmax(0, 1fr);
  height: 100vh;
}
.top {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 16px;
  background: var(--sheet);
  border-bottom: 1px solid var(--hairline);
}
.where {
  flex: 1;
  min-width: 0;
  overflow: hidden;
}
.find {
  display: flex;
  justify-content: space-between;
  flex: none;
  width: clamp(150px, 24vw, 240px);
  height: 30px;
  padding: 5px 10px;
  color: var(--ink-faint);
  background: none;
  border: 1px solid var(--hairline);
  border-radius: 3px;
  cursor: text;
}
.screen {
  min-height: 0;
  overflow: hidden;
}
</style>
