<template>
  <NuxtLayout>
    <NuxtPage />
  </NuxtLayout>
  <Toast position="bottom-center" />
  <ConfirmDialog :draggable="false" />
</template>
