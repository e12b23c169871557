<script lang="ts">
  import { TabItem, Tabs } from 'flowbite-svelte';
  import FixesPanel from '$lib/fixes/FixesPanel.svelte';
  import LineUpPanel from '$lib/lineup/LineUpPanel.svelte';
  import { getWorkspace } from '$lib/state/workspace.svelte';
  import { type Tab } from '$lib/state/selection.svelte';
  import BackgroundPanel from './BackgroundPanel.svelte';
  import CameraPanel from './CameraPanel.svelte';
  import IntentPanel from './IntentPanel.svelte';
  import LightPanel from './LightPanel.svelte';
  import PeoplePanel from './PeoplePanel.svelte';

  const workspace = getWorkspace();
</script>

{#snippet titled(name: string, key: number)}
  {name}<kbd class="ml-1 text-[10px] font-normal text-soft max-sm:hidden" aria-hidden="true">{key}</kbd>
{/snippet}

<!-- Answers first, then what is there; the keys in the same order. -->
<Tabs
  tabStyle="underline"
  classes={{ active: 'text-ink border-pencil dark:text-ink dark:border-pencil dark:bg-transparent' }}
  bind:selected={() => workspace.tab, (value) => (workspace.tab = (value ?? 'people') as Tab)}
>
  <TabItem key="fixes">{#snippet titleSlot()}{@render titled('Fixes', 1)}{/snippet}<FixesPanel /></TabItem>
  <TabItem key="lineUp">{#snippet titleSlot()}{@render titled('Line-up', 2)}{/snippet}<LineUpPanel /></TabItem>
  <TabItem key="light">{#snippet titleSlot()}{@render titled('Light', 3)}{/snippet}<LightPanel /></TabItem>
  <TabItem key="people" class="sm:ml-auto"
    >{#snippet titleSlot()}{@render titled('People', 4)}{/snippet}<PeoplePanel /></TabItem
  >
  <TabItem key="background"
    >{#snippet titleSlot()}{@render titled('Background', 5)}{/snippet}<BackgroundPanel /></TabItem
  >
  <TabItem key="intent">{#snippet titleSlot()}{@render titled('Intent', 6)}{/snippet}<IntentPanel /></TabItem>
  <TabItem key="camera">{#snippet titleSlot()}{@render titled('Camera', 7)}{/snippet}<CameraPanel /></TabItem>
</Tabs>
