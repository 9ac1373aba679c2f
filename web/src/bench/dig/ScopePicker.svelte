<script lang="ts">
  // For whom the rules below are: from the whole job down to one post.
  import type { Scope } from '../../lib/scope'
  import type { Session } from '../../lib/session.svelte'

  let { session }: { session: Session } = $props()
  const kinds = $derived(new Set(session.run.posts.map((p) => p.kind)))
  const post = $derived(session.run.posts[session.post])
  const said = $derived(new Set(session.run.levels.filter((l) => l.there).map((l) => l.kind ?? l.level)))
  const scopes = $derived<{ id: Scope; name: string; own?: boolean }[]>([
    { id: 'job', name: 'Whole job' },
    { id: 'run', name: session.run.name || session.run.id },
    ...(['line', 'end', 'corner', 'gate'] as const)
      .filter((k) => kinds.has(k))
      .map((k) => ({
        id: k,
        name: { line: 'Line posts', end: 'End posts', corner: 'Corner posts', gate: 'Gate posts' }[k],
        own: said.has(k),
      })),
    ...(post && !post.stays && !post.shared
      ? [{ id: 'post' as const, name: `${post.label} alone`, own: !!post.spot }]
      : []),
  ])
  $effect(() => {
    if (!scopes.some((s) => s.id === session.nav.scope)) session.nav.scope = 'run'
  })
</script>

<div class="mb-3 flex flex-wrap gap-1.5" role="group" aria-label="Rules for">
  {#each scopes as s (s.id)}
    <button
      class="min-h-11 border px-3 font-semibold {session.nav.scope === s.id
        ? 'border-mallow bg-mallow-wash shadow-[inset_0_0_0_1px_var(--mallow)]'
        : 'border-line bg-sheet'}"
      aria-pressed={session.nav.scope === s.id}
      onclick={() => (session.nav.scope = s.id)}
      >{s.name}{#if s.own}<span class="ml-1.5 font-normal text-pencil">own rules</span>{/if}</button
    >
  {/each}
</div>
<p class="mb-3 max-w-prose text-pencil">
  The nearest that says something wins: one post before its kind, before the run, before the whole job.
</p>
