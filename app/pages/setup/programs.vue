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
    <div ref="place" class="reference" />
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
.reference :deep(.swagger-ui .opblock-summary-path),
.reference :deep(.swagger-ui .opblock-summary-method) {
  font: 500 12px/18px var(--mono);
}
</style>
