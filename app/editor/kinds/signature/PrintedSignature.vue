<script setup lang="ts">
import type { ComposedSignature } from '#core/template/blocks/signature';
import PrintedRuns from '../../printed/PrintedRuns.vue';

/** A line to sign on, as it prints. */
defineProps<{ signature: ComposedSignature }>();
</script>

<template>
  <div class="signature">
    <p><PrintedRuns :runs="signature.label" /></p>
    <p><PrintedRuns :runs="signature.date" /></p>
  </div>
</template>
