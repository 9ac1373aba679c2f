<script lang="ts">
  // A part of the interface could not be fetched.
</script>

<main class="mx-auto max-w-xl p-6">
  <h1 class="text-2xl font-bold">This part could not be loaded</h1>
  <p class="mt-2">Mallow did not answer, or it was updated since this page was opened. Nothing is lost.</p>
  <p class="mt-4">
    <button class="btn btn-main" onclick={() => location.reload()}>Load the page again</button>
  </p>
</main>
