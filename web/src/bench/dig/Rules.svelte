<script lang="ts">
  // Every rule for width, depth and shape, at the level that is picked.
  import { levelOf } from '../../lib/rules'
  import type { Session } from '../../lib/session.svelte'
  import Augers from './Augers.svelte'
  import PostSize from './PostSize.svelte'
  import RuleFields from './RuleFields.svelte'
  import ScopePicker from './ScopePicker.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const level = $derived(levelOf(session, session.nav.scope))
</script>

<ScopePicker {session} />

{#key session.nav.scope + session.run.id + (session.nav.scope === 'post' ? session.post : '')}
  <div class="grid max-w-6xl gap-x-10 gap-y-6 xl:grid-cols-2">
    <section aria-labelledby="depth-rules">
      <h2 id="depth-rules" class="mb-2 border-b-2 border-ink pb-1 font-bold">
        {msg.rules_how_deep_the_greatest_of}
      </h2>
      <RuleFields {session} {level} part="depth" />
      <h3 class="mt-3 mb-1 font-bold">{msg.rules_then_added}</h3>
      <RuleFields {session} {level} part="added" />
    </section>
    <section aria-labelledby="width-rules">
      <h2 id="width-rules" class="mb-2 border-b-2 border-ink pb-1 font-bold">
        {msg.rules_how_wide_and_what_shape}
      </h2>
      <RuleFields {session} {level} part="width" />
      <Augers {session} {level} />
      <PostSize {session} />
    </section>
  </div>
{/key}
