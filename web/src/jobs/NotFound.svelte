<script lang="ts">
  import Masthead from '../parts/Masthead.svelte'
  import * as msg from '../gen/messages'
</script>

<Masthead />
<main class="mx-auto max-w-xl p-6">
  <h1 class="text-2xl font-bold">{msg.not_found_there_is_nothing_here}</h1>
  <p class="mt-2">{msg.not_found_the_address_leads_to_no}</p>
  <p class="mt-4"><a class="btn btn-main" href="/">{msg.common_all_jobs}</a></p>
</main>
