<script lang="ts">
  // Every rule for width, depth and shape, at the level that is picked.
  import { levelOf } from '../../lib/rules'
  import type { Session } from '../../lib/session.svelte'
  import Augers from './Augers.svelte'
  import PostSize from './PostSize.svelte'
  import RuleField from './RuleField.svelte'
  import ScopePicker from './ScopePicker.svelte'

  let { session }: { session: Session } = $props()
  const level = $derived(levelOf(session, session.nav.scope))
  const v = $derived(level.rules.values)
  const metric = $derived(session.units.system === 'metric')
  const gates = $derived(
    session.nav.scope !== 'end' && session.nav.scope !== 'corner' && session.nav.scope !== 'line',
  )
  const ends = $derived(session.nav.scope !== 'gate' && session.nav.scope !== 'line')
  const driven = $derived(v['hole/driven'] !== 'none')
</script>

<ScopePicker {session} />

{#key session.nav.scope + session.run.id + (session.nav.scope === 'post' ? session.post : '')}
  <div class="grid max-w-6xl gap-x-10 gap-y-6 xl:grid-cols-2">
    <section aria-labelledby="depth-rules">
      <h2 id="depth-rules" class="mb-2 border-b-2 border-ink pb-1 font-bold">
        How deep: the greatest of these
      </h2>
      <div class="grid grid-cols-2 items-end gap-x-4 gap-y-2 sm:grid-cols-3">
        <RuleField {session} {level} field="hole/frostMargin" label="Below the frost by" />
        <RuleField {session} {level} field="hole/skipFrost" label="Leave frost out" kind="switch" />
        <RuleField
          {session}
          {level}
          field="hole/share"
          label="Share in the ground"
          kind={['none', 'quarter', 'third', 'half']}
        />
        <RuleField {session} {level} field="hole/floor" label="Never less than" />
        <RuleField
          {session}
          {level}
          field="hole/floorPerHeight"
          label={metric ? 'and for each metre over 1.2 m' : 'and for each foot over 4 ft'}
          kind="per height"
        />
        <RuleField {session} {level} field="hole/skipFloor" label="Leave the floor out" kind="switch" />
      </div>
      <h3 class="mt-3 mb-1 font-bold">Then added</h3>
      <div class="grid grid-cols-2 items-end gap-x-4 gap-y-2 sm:grid-cols-3">
        {#if gates}<RuleField
            {session}
            {level}
            field="hole/gateExtraDepth"
            label="Gate posts deeper by"
          />{/if}
        {#if ends}<RuleField
            {session}
            {level}
            field="hole/endExtraDepth"
            label="Ends and corners deeper by"
          />{/if}
        <RuleField {session} {level} field="hole/roundDepthTo" label="Rounded up to" />
        <RuleField {session} {level} field="setting/gravel" label="Gravel under it" />
        <RuleField {session} {level} field="setting/stand" label="Foot above the concrete's bottom" />
        <RuleField {session} {level} field="hole/depth" label="Foot depth by hand" />
      </div>
    </section>
    <section aria-labelledby="width-rules">
      <h2 id="width-rules" class="mb-2 border-b-2 border-ink pb-1 font-bold">How wide, and what shape</h2>
      <div class="grid grid-cols-2 items-end gap-x-4 gap-y-2 sm:grid-cols-3">
        <RuleField {session} {level} field="hole/widthFactor" label="Hole, times the post" kind="ratio" />
        <RuleField
          {session}
          {level}
          field="hole/wideFactor"
          label={metric ? 'over 100 mm; 0: same' : 'over 4 in; 0: same'}
          kind="ratio"
        />
        <RuleField {session} {level} field="hole/commonWidth" label="What crews dig; 0: the multiple" />
        <RuleField
          {session}
          {level}
          field="hole/widthTolerance"
          label="Auger narrower by, %"
          kind="percent"
        />
        <RuleField {session} {level} field="hole/skipFactor" label="Leave the multiple out" kind="switch" />
        {#if gates}<RuleField
            {session}
            {level}
            field="hole/gateExtraWidth"
            label="Gate holes wider by"
          />{/if}
        {#if ends}<RuleField
            {session}
            {level}
            field="hole/endExtraWidth"
            label="Ends and corners wider by"
          />{/if}
        <RuleField {session} {level} field="hole/width" label="Width by hand" />
        <RuleField {session} {level} field="hole/shape" label="From above" kind={['round', 'square']} />
        {#if v['hole/shape'] === 'square'}
          <RuleField {session} {level} field="hole/spade" label="Room for the spade" />
        {:else}
          <RuleField
            {session}
            {level}
            field="hole/anyWidth"
            label="Any width, not an auger's"
            kind="switch"
          />
        {/if}
        <RuleField {session} {level} field="hole/bell" label="Belled at the bottom to" />
        {#if (v['hole/bell'] as number) > 0}<RuleField
            {session}
            {level}
            field="hole/bellHeight"
            label="over a height of"
          />{/if}
        <RuleField {session} {level} field="hole/taper" label="Wider at the top by" />
        <RuleField {session} {level} field="hole/along" label="Hole off its post, along the run" />
        <RuleField {session} {level} field="hole/across" label="Hole off its post, to the left" />
        <RuleField
          {session}
          {level}
          field="setting/restrained"
          label="Held at the ground by paving"
          kind="switch"
        />
        {#if session.nav.scope === 'job' || session.nav.scope === 'run'}
          <RuleField
            {session}
            {level}
            field="hole/driven"
            label="Driven posts"
            kind={['none', 'line', 'all']}
          />
          {#if driven}<RuleField
              {session}
              {level}
              field="hole/collar"
              label="Collar round a driven post"
            />{/if}
        {/if}
      </div>
      <Augers {session} {level} />
      <PostSize {session} />
    </section>
  </div>
{/key}
