<script setup lang="ts">
/** A button that is there for everybody: whom it is not for is told why, on pointing at it and on pressing it. */
const { whyNot } = defineProps<{ label: string; whyNot: string | undefined }>();
const emit = defineEmits<{ press: [] }>();
defineOptions({ inheritAttrs: false });
const tellBarred = useBarred();

function press(): void {
  if (!whyNot) return emit('press');
  tellBarred(whyNot);
}
</script>

<template>
  <Button
    v-tooltip.top="whyNot"
    v-bind="$attrs"
    :label="label"
    :aria-disabled="whyNot ? true : undefined"
    :aria-description="whyNot"
    :class="{ barred: whyNot }"
    @click="press"
  />
</template>

<style scoped>
.barred {
  opacity: 0.5;
  cursor: not-allowed;
}
</style>
