/**
 * Steps from one version of the stored data to the next, by the version they start from. Version 1 is the first
 * release; a change of the schema adds its step here and a file of the old version to the tests.
 */
export const migrations: Readonly<Record<number, (data: unknown) => unknown>> = {};
