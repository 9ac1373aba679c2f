<script lang="ts">
  // A part of the interface could not be fetched.
  let { name = '' }: { name?: string } = $props()
</script>

<div class="max-w-xl p-4" role="alert" data-testid="not-loaded">
  <h2 class="text-xl font-bold">
    {name ? `${name} cannot be opened just now` : 'This page cannot be opened just now'}
  </h2>
  <p class="mt-2">
    Mallow does not answer, or it was updated since this page was opened. Nothing is lost, and it is asked
    again every two seconds.
  </p>
  <p class="mt-4">
    <button class="btn btn-main" onclick={() => location.reload()}>Load the page again</button>
  </p>
</div>
