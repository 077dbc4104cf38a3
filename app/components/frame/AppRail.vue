<script setup lang="ts">
import { LayoutTemplate, NotebookTabs, SlidersHorizontal } from 'lucide-vue-next';
import { useMeStore } from '~/stores/me';
import { useRecordTypesStore } from '~/stores/record-types';

/** The rail on the left: the places of Lumbix. */
const types = useRecordTypesStore();
void types.load();
const places = computed(() => [
  ...(types.types ?? []).map(({ name, plural, icon }) => ({
    to: listPath(name),
    word: plural,
    icon: recordIcon(icon),
  })),
  { to: '/templates', word: 'Templates', icon: LayoutTemplate },
  { to: '/register', word: 'Register', icon: NotebookTabs },
  { to: '/setup', word: 'Setup', icon: SlidersHorizontal },
]);
const route = useRoute();
const store = useMeStore();
/** Of the person who is signed in. */
const initials = computed(() =>
  (store.me?.name ?? '')
    .split(/\s+/)
    .map((word) => word.charAt(0))
    .join('')
    .slice(0, 2)
    .toUpperCase(),
);
</script>

<template>
  <nav class="rail" aria-label="Places">
    <NuxtLink to="/" class="name" aria-label="Lumbix">Lx</NuxtLink>
    <NuxtLink
      v-for="place in places"
      :key="place.to"
      :to="place.to"
      class="place"
      :class="{ here: route.path.startsWith(place.to) }"
    >
      <component :is="place.icon" :size="20" :stroke-width="1.5" aria-hidden="true" />
      {{ place.word }}
    </NuxtLink>
    <NuxtLink
      v-if="store.me"
      v-tooltip.right="`${store.me.name}: ${store.me.roles.join(', ')}`"
      to="/you"
      class="you"
      :class="{ here: route.path === '/you' }"
      :aria-label="`You: ${store.me.name}`"
      ><span>{{ initials }}</span></NuxtLink
    >
  </nav>
</template>

<style scoped>
.rail {
  grid-row: 1 / 3;
  display: flex;
  flex-direction: column;
  padding-top: 6px;
  background: var(--night);
}
.name {
  margin-bottom: 8px;
  color: #fff;
  font: 600 19px/40px var(--serif);
  letter-spacing: -0.02em;
  text-align: center;
  text-decoration: none;
}
.place {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 4px;
  padding: 9px 0 8px;
  border-left: 3px solid transparent;
  color: #a9b6b4;
  font-size: 10.5px;
  line-height: 13px;
  text-decoration: none;
}
.place:hover {
  color: #fff;
}
.here {
  background: #243235;
  border-left-color: var(--brass);
  color: #fff;
}
.you {
  margin-top: auto;
  padding: 12px 0 14px;
  border-left: 3px solid transparent;
  text-align: center;
  text-decoration: none;
}
.you span {
  display: inline-block;
  width: 30px;
  margin-left: -3px;
  border: 1px solid #56676a;
  border-radius: 50%;
  color: #d5dedc;
  font-size: 11px;
  line-height: 28px;
}
.you:hover span {
  border-color: #fff;
  color: #fff;
}
.rail :focus-visible {
  outline-color: #7fb4b6;
  outline-offset: -2px;
}
</style>
