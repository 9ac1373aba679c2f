<script lang="ts">
  // The run's post, from the sizes that are sold.
  import type { Post } from '../../gen/api'
  import type { Session } from '../../lib/session.svelte'
  import Pick from '../../parts/Pick.svelte'
  import LengthField from '../LengthField.svelte'
  import * as msg from '../../gen/messages'

  let { session }: { session: Session } = $props()
  const units = $derived(session.units)
  const post = $derived(session.value<Post>(session.at('/post'))!)
  const sizes = $derived(session.catalogue.posts.filter((p) => p.system === units.system))
  const size = $derived(
    sizes.find(
      (p) =>
        p.shape === post.shape &&
        Math.abs(p.width - (post.width ?? 0)) < 0.01 &&
        p.hollow === (post.hollow ?? false),
    )?.name ?? 'own',
  )

  function take(name: string) {
    const p = sizes.find((s) => s.name === name)
    if (!p) return
    const { shape, width, hollow, wall } = p
    session.commit(
      Object.entries({ shape, width, hollow, wall }).map(([k, value]) => ({
        path: session.at(`/post/${k}`),
        value,
      })),
      msg.post_size_posts({ name }),
    )
  }
</script>

<div class="mt-4 grid max-w-xl grid-cols-2 gap-3">
  <Pick
    label={msg.post_size_post_of({ v1: session.run.name || session.run.id })}
    value={size}
    options={[
      ...sizes.map((s) => ({ value: s.name, name: s.name })),
      ...(size === 'own' ? [{ value: 'own', name: msg.common_own_size }] : []),
    ]}
    onpick={take}
  />
  <LengthField {session} path={session.at('/post/width')} label={msg.post_size_its_width} />
</div>
