/** npm run -s plan -- FILE.json: prints the plan of a request. `-` reads standard input. See docs/formats.md. */
import { readFileSync } from 'node:fs';
import { answerPlanRequest } from '../core/service/planRequest';

function fail(message: string): never {
  console.error(message);
  process.exit(1);
}

const [path, ...rest] = process.argv.slice(2);
if (path === undefined || rest.length > 0) fail('Usage: npm run -s plan -- FILE.json   (- reads standard input)');

let text: string;
try {
  text = readFileSync(path === '-' ? 0 : path, 'utf8');
} catch (error) {
  fail(`${path} cannot be read: ${error instanceof Error ? error.message : String(error)}`);
}

const answer = answerPlanRequest(text);
if (!answer.ok) fail(answer.field === '' ? answer.reason : `${answer.field}: ${answer.reason}`);
process.stdout.write(answer.json);
