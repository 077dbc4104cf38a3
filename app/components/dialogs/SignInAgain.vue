<script setup lang="ts">
import { useMeStore } from '~/stores/me';

/** Over the page that is open: the session is over, and what was typed waits behind this. */
const store = useMeStore();
</script>

<template>
  <Dialog visible modal :closable="false" :close-on-escape="false" header="Sign in again" :style="{ width: '480px' }">
    <p class="quiet">Your session is over. What you typed is still there, and goes on once you are signed in.</p>
    <SignInForm :email="store.me?.isDemo ? '' : store.me?.email" @in="store.signedIn" />
  </Dialog>
</template>
