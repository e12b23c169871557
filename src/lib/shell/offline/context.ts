import { createContext } from 'svelte';
import type { Offline } from './offline.svelte';

export const [getOffline, setOffline] = createContext<Offline>();
