/** What a failed validation says to a person: the field, and the reason as a sentence. */
import type { z } from 'zod';

export function issueField(issue: z.core.$ZodIssue | undefined): string {
  if (!issue) return '';
  return fieldPath(issue.code === 'unrecognized_keys' ? [...issue.path, issue.keys[0] ?? ''] : issue.path);
}

export function issueReason(issue: z.core.$ZodIssue | undefined): string {
  if (!issue) return 'Not valid.';
  if (issue.code === 'unrecognized_keys') return 'Focalis does not know this field.';
  const reason = issue.message.charAt(0).toUpperCase() + issue.message.slice(1);
  return reason.endsWith('.') ? reason : `${reason}.`;
}

function fieldPath(path: readonly PropertyKey[]): string {
  return path.reduce<string>((text, part) => {
    if (typeof part === 'number') return `${text}[${part}]`;
    return text === '' ? String(part) : `${text}.${String(part)}`;
  }, '');
}
