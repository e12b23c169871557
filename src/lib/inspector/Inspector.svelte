<script lang="ts">
  import { TabItem, Tabs } from 'flowbite-svelte';
  import FixesPanel from '$lib/call/FixesPanel.svelte';
  import LineUpPanel from '$lib/call/LineUpPanel.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import { type Tab } from '$lib/state/screen/selection.svelte';
  import BackgroundPanel from './BackgroundPanel.svelte';
  import CameraPanel from './CameraPanel.svelte';
  import IntentPanel from './IntentPanel.svelte';
  import TechniquePanel from '$lib/technique/TechniquePanel.svelte';
  import ChecksPanel from '$lib/technique/ChecksPanel.svelte';
  import LightPanel from './LightPanel.svelte';
  import PeoplePanel from './PeoplePanel.svelte';

  const workspace = getWorkspace();
</script>

<!-- Answers first, then what is there; the keys 1 to 9 in the same order. -->
<Tabs
  tabStyle="underline"
  class="w-full gap-x-3"
  classes={{ active: 'text-ink border-pencil dark:text-ink dark:border-pencil dark:bg-transparent' }}
  bind:selected={() => workspace.tab, (value) => (workspace.tab = (value ?? 'people') as Tab)}
>
  <TabItem key="fixes" title="Fixes"><FixesPanel /></TabItem>
  <TabItem key="lineUp" title="Line-up"><LineUpPanel /></TabItem>
  <TabItem key="technique" title="Technique"><TechniquePanel /></TabItem>
  <TabItem key="light" title="Light"><LightPanel /></TabItem>
  <TabItem key="checks" title="Checks"><ChecksPanel /></TabItem>
  <TabItem key="people" title="People" class="sm:ml-auto"><PeoplePanel /></TabItem>
  <TabItem key="background" title="Background"><BackgroundPanel /></TabItem>
  <TabItem key="intent" title="Intent"><IntentPanel /></TabItem>
  <TabItem key="camera" title="Camera"><CameraPanel /></TabItem>
</Tabs>
