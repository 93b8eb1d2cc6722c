<template>
  <section :title="'Fares for ' + boat" @click="say('Hello there')">
    <p v-if="n > 1">Seats left: {{ n | text }}</p><p v-else>{{ n === 1 ? "One seat" : "No seats" }}</p>
    <my-input placeholder="Search boats" /> <!-- fond: skip -->
  </section>
</template>
<script setup lang="ts">
defineProps({ boat: { type: String, default: "The Heron" } });
const note = "Dogs are welcome";
</script>
<style>p::after { content: "x" }</style>
