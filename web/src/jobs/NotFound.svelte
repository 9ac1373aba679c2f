<script lang="ts">
  import Masthead from '../parts/Masthead.svelte'
</script>

<Masthead />
<main class="mx-auto max-w-xl p-6">
  <h1 class="text-2xl font-bold">There is nothing here</h1>
  <p class="mt-2">The address leads to no page of Mallow.</p>
  <p class="mt-4"><a class="btn btn-main" href="/">All jobs</a></p>
</main>
