/** The top of a page that is no job: the way back to all jobs, its name, and what it has of its own. */
import { type ReactNode, useId } from 'react';
import { Form } from 'react-bootstrap';
import { Link } from 'react-router';

interface Props {
  title: string;
  /** A search, or a row of kinds. */
  children?: ReactNode;
  tools?: ReactNode;
}

export function PageTop({ title, children, tools }: Props) {
  return (
    <header className="top">
      <div className="brand">
        <Link to="/" className="brand-name" title="All jobs">
          Aptum
        </Link>
        <h1 className="brand-line">{title}</h1>
      </div>
      {children}
      <div className="tools">{tools}</div>
    </header>
  );
}

interface FindProps {
  label: string;
  example: string;
  text: string;
  onText: (text: string) => void;
}

export function Find({ label, example, text, onText }: FindProps) {
  const id = useId();
  return (
    <>
      <label htmlFor={id} className="visually-hidden">
        {label}
      </label>
      <Form.Control
        id={id}
        type="search"
        placeholder={example}
        value={text}
        onChange={({ target: { value } }) => onText(value)}
      />
    </>
  );
}
