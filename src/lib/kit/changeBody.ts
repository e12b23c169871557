import type { Draft } from 'immer';
import type { Body } from '$core/kit/schema';
import type { EditManner } from '$lib/data';

/** Changes the body whose fields these are, as one step of undo under its label. */
export type ChangeBody = (label: string, recipe: (draft: Draft<Body>) => void, how?: EditManner) => unknown;
