<script>
  export let boat = "Heron"; const title = `Aboard ${boat}`;
</script>
{#if boat}<h1 class:big={true}>Welcome, {boat}!</h1>{:else}<p>{@html "<i>None</i>"}</p>{/if}
{#each [1, 2] as n (n)}<li title="Deck {n}">Deck {n}</li>{/each}
