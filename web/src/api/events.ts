/** Long work on the server, followed through its events. */
import { EventSourceParserStream } from 'eventsource-parser/stream';

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
  const events = answer.body
    .pipeThrough(new TextDecoderStream())
    .pipeThrough(new EventSourceParserStream())
    .getReader();
  try {
    for (;;) {
      const { value, done } = await events.read();
      if (done) return;
      onEvent(value.event ?? 'message', JSON.parse(value.data));
    }
  } catch (error) {
    if (!signal.aborted) throw new Failure(unreachable, { cause: error });
  }
}
