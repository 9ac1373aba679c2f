<script lang="ts">
  // A part of the interface could not be fetched.
  import * as msg from '../gen/messages'
  let { name = '' }: { name?: string } = $props()
</script>

<div class="max-w-xl p-4" role="alert" data-testid="not-loaded">
  <h2 class="text-xl font-bold">
    {name ? msg.not_loaded_cannot_be_opened_just_now({ name }) : msg.not_loaded_this_page_cannot_be_opened}
  </h2>
  <p class="mt-2">
    {msg.not_loaded_mallow_does_not_answer_or}
  </p>
  <p class="mt-4">
    <button class="btn btn-main" onclick={() => location.reload()}
      >{msg.not_loaded_load_the_page_again}</button
    >
  </p>
</div>
