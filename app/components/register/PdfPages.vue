<script setup lang="ts">
import { GlobalWorkerOptions, getDocument, type PDFDocumentProxy } from 'pdfjs-dist';
import workerUrl from 'pdfjs-dist/build/pdf.worker.min.mjs?url';

/** A filed PDF's pages, drawn by pdf.js in a worker of its own. */
const { src } = defineProps<{ src: string }>();
GlobalWorkerOptions.workerSrc = workerUrl;
const desk = useTemplateRef<HTMLElement>('desk');
const problem = ref('');
const sizes = ref<{ width: number; height: number }[]>([]);
const WIDTH = 640;
let opened: PDFDocumentProxy | undefined;

watch(() => src, show, { immediate: true });
onBeforeUnmount(() => opened?.destroy());

async function show(): Promise<void> {
  problem.value = '';
  try {
    await opened?.destroy();
    opened = await getDocument({ url: src, isEvalSupported: false }).promise;
    const pages = await Promise.all(Array.from({ length: opened.numPages }, (_, index) => opened!.getPage(index + 1)));
    sizes.value = pages
      .map((page) => page.getViewport({ scale: 1 }))
      .map(({ width, height }) => ({ width: WIDTH, height: (WIDTH * height) / width }));
    await nextTick();
    const canvases = desk.value?.querySelectorAll('canvas') ?? [];
    for (const [index, canvas] of [...canvases].entries()) {
      const page = pages[index]!;
      const viewport = page.getViewport({
        scale: (WIDTH / page.getViewport({ scale: 1 }).width) * Math.max(window.devicePixelRatio, 1.5),
      });
      canvas.width = viewport.width;
      canvas.height = viewport.height;
      await page.render({ canvas, viewport }).promise;
      canvas.dataset.drawn = 'yes';
    }
  } catch {
    problem.value = 'The PDF cannot be shown. Download it, or try again.';
  }
}
</script>

<template>
  <div ref="desk" class="desk">
    <p v-if="problem" role="alert">{{ problem }}</p>
    <canvas
      v-for="(size, index) in sizes"
      :key="index"
      :style="{ width: `${size.width}px`, height: `${size.height}px` }"
      :aria-label="`Page ${index + 1} of ${sizes.length}`"
      role="img"
    />
  </div>
</template>

<style scoped>
.desk {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 20px;
  height: 100%;
  padding: 20px 0 40px;
  overflow: auto;
}
canvas {
  flex: none;
  background: var(--paper);
  box-shadow: var(--sheet-shadow);
}
</style>
