<script lang="ts">
  import { ChevronDown, ChevronRight } from '@lucide/svelte';
  import type { Alternatives, TargetResult } from '$core/call/alternatives';
  import { asFocusTarget } from '$core/call/focusTarget';
  import { alternativeWords, viewingWords } from '$core/words/alternatives';
  import { styleWords } from '$core/setup/choices';
  import { targetWords } from '$core/words/call';
  import { formatLength } from '$core/units/length';
  import type { PlanInput } from '$core/call/planInput';
  import Failed from '$lib/controls/Failed.svelte';
  import Older from '$lib/controls/Older.svelte';
  import { findAlternatives } from '../../workers/clients/planner';
  import { Search } from '$lib/state/screen/search.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';

  /** Other eyes and other styles: each with what it costs, each one click away. */
  const workspace = getWorkspace();
  const search = new Search<PlanInput, Alternatives>(findAlternatives);
  const shown = 5;
  let open = $state(false);
  const plan = $derived(workspace.plan);
  const entry = $derived(workspace.entry);
  $effect(() => {
    const { question } = workspace;
    if (open) void search.ask(question);
  });
  const found = $derived(search.answer?.found ?? null);
  const older = $derived(search.answer !== null && search.answer.to.setup !== workspace.setup);
  const intent = $derived(workspace.setup.intent);

  interface Row {
    readonly key: string;
    readonly name: string;
    readonly cost: string;
    readonly current: boolean;
    readonly take: () => void;
  }
  const isCurrent = ({ target }: TargetResult) =>
    target.subjectId === entry?.target.subjectId && target.feature === entry?.target.feature;

  const betweenRow = (item: TargetResult): Row => ({
    key: 'between',
    name: `between the rows, ${formatLength(item.target.focusDistanceMm, workspace.unit)} away, manual focus`,
    cost: alternativeWords(item),
    current: false,
    take: () =>
      void workspace.edit('Focus between the rows', (draft) => {
        draft.camera.focusMethod = 'magnifier';
        draft.intent.target = asFocusTarget(item.target, workspace.setup);
      })
  });

  const groups = $derived.by((): { title: string; rows: Row[] }[] => {
    if (!found || !plan || !entry) return [];
    const named = (target: TargetResult['target']) => targetWords(plan, { ...entry, target }, workspace.unit);
    return [
      {
        title: 'Focus on',
        rows: [
          ...(intent.target.kind === 'best'
            ? []
            : [
                {
                  key: 'best',
                  name: 'the best eye',
                  cost: '',
                  current: false,
                  take: () => workspace.focusOn({ kind: 'best' })
                }
              ]),
          ...found.targets.slice(0, shown).map((item) => ({
            key: `${item.target.subjectId}-${item.target.feature}`,
            name: named(item.target),
            cost: alternativeWords(item),
            current: isCurrent(item),
            take: () => workspace.focusOn(asFocusTarget(item.target, workspace.setup))
          })),
          ...(found.between ? [betweenRow(found.between)] : [])
        ]
      },
      {
        title: 'Aperture',
        rows: found.styles.map((item) => ({
          key: item.style,
          name: `${styleWords[item.style]}: f/${item.stop}`,
          cost: alternativeWords(item),
          current: intent.style === item.style && intent.stop.kind === 'byStyle',
          take: () =>
            void workspace.edit('Style', (draft) => {
              draft.intent.style = item.style;
              draft.intent.stop = { kind: 'byStyle' };
            })
        }))
      },
      {
        title: 'Looked at',
        rows: found.viewings.map((item) => ({
          key: item.viewing,
          name: viewingWords(item),
          cost: alternativeWords(item),
          current: false,
          take: () => workspace.lookAs(item.viewing)
        }))
      }
    ].filter((group) => group.rows.length > 0);
  });
</script>

<div class="mt-1.5">
  <button
    type="button"
    class="flex h-6 items-center gap-0.5 text-soft hover:text-ink"
    aria-expanded={open}
    onclick={() => (open = !open)}
  >
    {#if open}<ChevronDown size={14} aria-hidden="true" />{:else}<ChevronRight size={14} aria-hidden="true" />{/if}
    Alternatives
  </button>
  {#if open}
    <div class="mb-1 space-y-1.5" data-testid="other-ways">
      {#each groups as group (group.title)}
        <div class="grid grid-cols-[auto_1fr] gap-x-3">
          <p class="label w-28 pt-0.5">{group.title}</p>
          <ul>
            {#each group.rows as row (row.key)}
              <li>
                <button
                  type="button"
                  class="flex min-h-6 w-full items-baseline gap-2 text-left hover:text-pencil"
                  aria-pressed={row.current}
                  onclick={row.take}
                >
                  <span class={row.current ? 'font-semibold' : ''}>{row.name}</span>
                  <span class="condensed ml-auto text-right text-soft">{row.cost}</span>
                </button>
              </li>
            {/each}
          </ul>
        </div>
      {/each}
      {#if search.failure}
        <Failed
          what="They could not be worked out."
          why={search.failure}
          onretry={() => search.ask(workspace.question)}
        />
      {:else if older}<Older slow={search.slow} />{/if}
    </div>
  {/if}
</div>
