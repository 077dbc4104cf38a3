<script setup lang="ts">
import { useMeStore, type Me } from '~/stores/me';

definePageMeta({ layout: 'plain' });
useHead({ title: 'Sign in – Lumbix' });
const route = useRoute();
const store = useMeStore();

/** Where the person wanted to go: a place of Lumbix and nothing else. */
const target = computed(() => {
  const { to } = route.query;
  return typeof to === 'string' && /^\/(?![/\\])/.test(to) ? to : '/';
});

function enter(me: Me): void {
  store.signedIn(me);
  void navigateTo(target.value);
}
</script>

<template>
  <div class="form"><SignInForm @in="enter" /></div>
</template>

<style scoped>
.form {
  padding: 0 36px;
}
</style>
