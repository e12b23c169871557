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

<Tabs
  tabStyle="underline"
  classes={{ active: 'text-ink border-pencil dark:text-ink dark:border-pencil dark:bg-transparent' }}
  bind:selected={() => workspace.tab, (value) => (workspace.tab = (value ?? 'people') as Tab)}
>
  <TabItem key="fixes" title="Fixes"><FixesPanel /></TabItem>
  <TabItem key="lineUp" title="Line-up"><LineUpPanel /></TabItem>
  <TabItem key="people" title="People"><PeoplePanel /></TabItem>
  <TabItem key="background" title="Background"><BackgroundPanel /></TabItem>
  <TabItem key="intent" title="Intent"><IntentPanel /></TabItem>
  <TabItem key="camera" title="Camera"><CameraPanel /></TabItem>
  <TabItem key="light" title="Light"><LightPanel /></TabItem>
</Tabs>
