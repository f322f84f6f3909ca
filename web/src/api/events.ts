/** Long work on the server, followed through its events. */
import { asProblem, Failure, unreachable } from './client';

/** Hands on each event of a long task, named and parsed, until it ends or `signal` ends it. */
export async function follow(
  path: string,
  body: unknown,
  signal: AbortSignal,
  onEvent: (name: string, data: unknown) => void,
): Promise<void> {
  let answer: Response;
  try {
    answer = await fetch(`/api${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Accept: 'text/event-stream' },
      body: JSON.stringify(body),
      signal,
    });
  } catch (error) {
    if (signal.aborted) return;
    throw error instanceof TypeError ? new Failure(unreachable) : error;
  }
  if (!answer.ok || !answer.body) throw new Failure(asProblem(await answer.text(), answer));
  const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  try {
    for (;;) {
      const { value, done } = await reader.read();
      if (done) return;
      text += value;
      const events = text.split('\n\n');
      text = events.pop() ?? '';
      for (const event of events) deliver(event, onEvent);
    }
  } catch (error) {
    if (!signal.aborted) throw new Failure(unreachable, { cause: error });
  }
}

function deliver(event: string, onEvent: (name: string, data: unknown) => void) {
  let name = 'message';
  const data: string[] = [];
  for (const line of event.split('\n')) {
    if (line.startsWith('event:')) name = line.slice(6).trim();
    else if (line.startsWith('data:')) data.push(line.slice(5));
  }
  if (data.length > 0) onEvent(name, JSON.parse(data.join('\n')));
}
