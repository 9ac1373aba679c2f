<script lang="ts">
  // For whom the rules below are: from the whole job down to one post.
  import type { Scope } from '../../lib/scope'
  import type { Session } from '../../lib/session.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const kinds = $derived(new Set(session.run.posts.map((p) => p.kind)))
  const post = $derived(session.run.posts[session.post])
  const said = $derived(new Set(session.run.levels.filter((l) => l.there).map((l) => l.kind ?? l.level)))
  const scopes = $derived<{ id: Scope; name: string; own?: boolean }[]>([
    { id: 'job', name: msg.common_whole_job },
    { id: 'run', name: session.run.name || session.run.id },
    ...(['line', 'end', 'corner', 'gate'] as const)
      .filter((k) => kinds.has(k))
      .map((k) => ({
        id: k,
        name: {
          line: msg.common_line_posts,
          end: 'End posts',
          corner: msg.scope_picker_corner_posts,
          gate: msg.scope_picker_gate_posts,
        }[k],
        own: said.has(k),
      })),
    ...(post && !post.stays && !post.shared
      ? [{ id: 'post' as const, name: msg.common_alone({ label: post.label }), own: !!post.spot }]
      : []),
  ])
  $effect(() => {
    if (!scopes.some((s) => s.id === session.nav.scope)) session.nav.scope = 'run'
  })
</script>

<div class="mb-3 flex flex-wrap gap-1.5" role="group" aria-label={msg.scope_picker_rules_for}>
  {#each scopes as s (s.id)}
    <button
      class="min-h-11 border px-3 font-semibold {session.nav.scope === s.id
        ? 'border-mallow bg-mallow-wash shadow-[inset_0_0_0_1px_var(--mallow)]'
        : 'border-line bg-sheet'}"
      aria-pressed={session.nav.scope === s.id}
      onclick={() => (session.nav.scope = s.id)}
      >{s.name}{#if s.own}<span class="ml-1.5 font-normal text-pencil">{msg.scope_picker_own_rules}</span
        >{/if}</button
    >
  {/each}
</div>
<p class="mb-3 max-w-prose text-pencil">
  {msg.scope_picker_the_nearest_that_says_something}
</p>
