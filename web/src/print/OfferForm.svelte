<script lang="ts">
  // What the customer is told beside what the plan knows: colour or finish, what
  // is included, the days. It stands on the customer's sheet and nowhere else.
  import { at } from '../lib/doc'
  import type { Session } from '../lib/session.svelte'
  import * as msg from '../gen/messages'

  let { session }: { session: Session } = $props()
  const runs = $derived(session.doc.lines.flatMap((l) => l.runs.map((r) => ({ line: l.id, run: r }))))

  function set(path: string, value: string, what: string) {
    if (value !== (session.own<string>(path) ?? '')) session.commit([{ path, value: value || null }], what)
  }
  const scopes = [
    { value: 'yes', name: msg.offer_form_included },
    { value: 'no', name: msg.offer_form_not_included },
    { value: '', name: msg.offer_form_say_nothing },
  ]
</script>

<section aria-labelledby="offer-title" class="grid gap-4 border-t border-line pt-3">
  <h3 id="offer-title" class="font-bold">{msg.offer_form_what_the_customer_is_told}</h3>
  <div class="grid gap-3 sm:grid-cols-2">
    <div>
      <label class="label mb-1" for="offer-who">{msg.common_customer}</label>
      <input
        id="offer-who"
        class="field"
        maxlength="200"
        value={session.own<string>('/site/customer') ?? ''}
        onchange={(e) => set('/site/customer', e.currentTarget.value.trim(), msg.common_customer_noted)}
      />
    </div>
    <div>
      <label class="label mb-1" for="offer-where">{msg.common_where_the_work_is}</label>
      <input
        id="offer-where"
        class="field"
        maxlength="400"
        value={session.own<string>('/site/address') ?? ''}
        onchange={(e) => set('/site/address', e.currentTarget.value.trim(), msg.common_address_noted)}
      />
    </div>
    {#each runs as { line, run } (run.id)}
      {@const path = at(at('/lines', line, 'runs'), run.id, 'finish')}
      <div>
        <label class="label mb-1" for="finish-{run.id}"
          >{msg.offer_form_color_or_finish({ v1: run.name || run.id })}</label
        >
        <input
          id="finish-{run.id}"
          class="field"
          maxlength="120"
          value={session.own<string>(path) ?? ''}
          onchange={(e) => set(path, e.currentTarget.value.trim(), msg.offer_form_finish_noted)}
        />
      </div>
    {/each}
    <div>
      <label class="label mb-1" for="offer-start">{msg.offer_form_work_begins}</label>
      <input
        id="offer-start"
        type="date"
        class="field"
        value={session.own<string>('/offer/start') ?? ''}
        onchange={(e) => set('/offer/start', e.currentTarget.value, msg.offer_form_first_day_set)}
      />
    </div>
    <div>
      <label class="label mb-1" for="offer-end">{msg.offer_form_done_by}</label>
      <input
        id="offer-end"
        type="date"
        class="field"
        value={session.own<string>('/offer/end') ?? ''}
        aria-describedby="offer-end-wrong"
        onchange={(e) => set('/offer/end', e.currentTarget.value, msg.offer_form_last_day_set)}
      />
      <p id="offer-end-wrong" class="text-stop">{session.wrongAt('/offer/end') ?? ''}</p>
    </div>
  </div>
  <ul class="border-t border-rule">
    {#each session.catalogue.offers as o (o.value)}
      {@const path = `/offer/${o.value}`}
      <li class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule py-1.5">
        <span class="min-w-[12rem] flex-1" id="offer-{o.value}">{o.name}</span>
        <select
          class="field w-44"
          aria-labelledby="offer-{o.value}"
          value={session.own<string>(path) ?? ''}
          onchange={(e) => set(path, e.currentTarget.value, msg.offer_form_offer_changed)}
        >
          {#each scopes as s (s.value)}<option value={s.value}>{s.name}</option>{/each}
        </select>
      </li>
    {/each}
  </ul>
  <div class="grid gap-3 sm:grid-cols-2">
    <div>
      <label class="label mb-1" for="offer-also">{msg.offer_form_also_included_one_to_a}</label>
      <textarea
        id="offer-also"
        class="field min-h-20 py-2"
        maxlength="1000"
        value={session.own<string>('/offer/also') ?? ''}
        onchange={(e) => set('/offer/also', e.currentTarget.value, msg.offer_form_offer_changed)}></textarea>
    </div>
    <div>
      <label class="label mb-1" for="offer-not">{msg.offer_form_also_not_included_one_to}</label>
      <textarea
        id="offer-not"
        class="field min-h-20 py-2"
        maxlength="1000"
        value={session.own<string>('/offer/not') ?? ''}
        onchange={(e) => set('/offer/not', e.currentTarget.value, msg.offer_form_offer_changed)}></textarea>
    </div>
  </div>
</section>
