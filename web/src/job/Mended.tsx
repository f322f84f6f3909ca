/** Holds an error while something is drawn: the rest of the page, and what is saved, stay. */
import { Component, type ReactNode } from 'react';
import { Button } from 'react-bootstrap';

interface Props {
  children: ReactNode;
  /** What cannot be drawn, such as “This stage”. */
  what: string;
  /** A further way out. */
  action?: ReactNode;
  /** What is drawn: when it changes it is tried again. */
  drawn?: unknown;
}

export class Mended extends Component<Props, { error: Error | null }> {
  override state: { error: Error | null } = { error: null };

  static getDerivedStateFromError(error: Error) {
    return { error };
  }

  override componentDidUpdate(before: Props) {
    if (this.state.error && before.drawn !== this.props.drawn) this.setState({ error: null });
  }

  override render() {
    const { error } = this.state;
    if (!error) return this.props.children;
    return (
      <main className="message-page" role="alert">
        <h2>{this.props.what} cannot be drawn</h2>
        <p>
          Nothing is lost: what was saved is kept. The fault is the program’s: “{error.message}”.
        </p>
        <Button onClick={() => this.setState({ error: null })}>Draw it again</Button>{' '}
        {this.props.action}
      </main>
    );
  }
}
