<script setup lang="ts">
import 'swagger-ui-dist/swagger-ui.css';

/** What programs can ask Lumbix for, to read and to try. */
const place = useTemplateRef<HTMLElement>('place');

onMounted(async () => {
  const { default: show } = await import('swagger-ui-dist/swagger-ui-es-bundle');
  show({
    domNode: place.value,
    url: '/api/openapi.json',
    docExpansion: 'none',
    tryItOutEnabled: true,
    deepLinking: false,
  });
});
</script>

<template>
  <div class="programs">
    <p>
      Programs ask with a token, <code>Authorization: Bearer …</code>, which you make under
      <NuxtLink to="/you">You</NuxtLink>. Below you can try each request as yourself. The description is at
      <a href="/api/openapi.json" target="_blank" rel="noopener">/api/openapi.json</a> (OpenAPI 3.1).
    </p>
    <div ref="place" class="reference on-paper" />
  </div>
</template>

<style scoped>
.programs {
  max-width: 1040px;
  padding: 16px 24px 40px;
}
.reference {
  margin-top: 12px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
}
.reference :deep(.swagger-ui),
.reference :deep(.swagger-ui .opblock-tag),
.reference :deep(.swagger-ui .opblock-summary-description),
.reference :deep(.swagger-ui .info) {
  font-family: var(--sans);
}
.reference :deep(.swagger-ui .information-container),
.reference :deep(.swagger-ui .scheme-container) {
  display: none;
}
.reference :deep(.swagger-ui .wrapper) {
  padding: 4px 16px 16px;
}
.reference :deep(.swagger-ui .opblock-tag) {
  font: 600 14px/18px var(--serif);
}
.reference :deep(.swagger-ui .opblock) {
  margin: 0 0 6px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  box-shadow: none;
}
.reference :deep(.swagger-ui .opblock-summary) {
  border-color: var(--hairline);
}
.reference :deep(.swagger-ui .opblock-summary-method) {
  min-width: 62px;
  padding: 3px 0;
  background: var(--verdigris);
  border-radius: 2px;
}
.reference :deep(.swagger-ui .opblock-post .opblock-summary-method),
.reference :deep(.swagger-ui .opblock-put .opblock-summary-method),
.reference :deep(.swagger-ui .opblock-patch .opblock-summary-method) {
  background: var(--brass-text);
}
.reference :deep(.swagger-ui .opblock-delete .opblock-summary-method) {
  background: var(--brick);
}
.reference :deep(.swagger-ui .btn.execute) {
  background: var(--ink);
  border-color: var(--ink);
}
.reference :deep(.swagger-ui .opblock-section-header) {
  background: var(--desk);
  box-shadow: none;
}
.reference :deep(.swagger-ui .tab-item.active h4 span::after) {
  background: var(--ink);
}
.reference :deep(.swagger-ui :is(p, h4, h5, td, th, label, .parameter__name, .tab-item)) {
  font-family: var(--sans);
}
.reference :deep(.swagger-ui .opblock-summary-path),
.reference :deep(.swagger-ui .opblock-summary-method) {
  font: 500 12px/18px var(--mono);
}
</style>
