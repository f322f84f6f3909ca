/** Asks for the passphrase where the server wants one, once per browser. */
import { useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { Button, Form } from 'react-bootstrap';

import { api, Failure } from '../api/client';
import { useMeta } from '../api/queries';

export function Door({ children }: { children: ReactNode }) {
  const { error } = useMeta();
  const isLocked = error instanceof Failure && error.problem.type === '/problems/locked';
  return isLocked ? <Enter /> : children;
}

function Enter() {
  const client = useQueryClient();
  const [passphrase, setPassphrase] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [isAsking, setAsking] = useState(false);
  const enter = async () => {
    setAsking(true);
    try {
      await api.enter(passphrase);
      await client.resetQueries();
    } catch (failure) {
      if (!(failure instanceof Failure)) throw failure;
      setTrouble(failure.message);
    } finally {
      setAsking(false);
    }
  };
  return (
    <main className="message-page">
      <h1>Aptum</h1>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          void enter();
        }}
      >
        <Form.Label htmlFor="passphrase">
          The passphrase, as it was printed when Aptum was started or stands in its file
        </Form.Label>
        <Form.Control
          id="passphrase"
          type="password"
          autoComplete="current-password"
          value={passphrase}
          onChange={(event) => setPassphrase(event.target.value)}
        />
        {trouble && (
          <p className="lay-trouble" role="alert">
            {trouble}
          </p>
        )}
        <Button type="submit" disabled={isAsking || passphrase === ''}>
          {isAsking ? 'Asking …' : 'Enter'}
        </Button>
      </Form>
    </main>
  );
}
