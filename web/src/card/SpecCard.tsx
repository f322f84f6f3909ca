/** The spec card: a job ticket with ruled rows. */
import type { ReactNode } from 'react';
import { Link } from 'react-router';

interface Props {
  title: string;
  subtitle: string;
  /** Shown first, above the rows. */
  notice?: ReactNode;
  /** A button beside the title. */
  action?: ReactNode;
  children: ReactNode;
}

export function SpecCard({ title, subtitle, notice, action, children }: Props) {
  return (
    <aside className="spec-card" aria-label="Spec card">
      <span className="spec-hole" aria-hidden="true" />
      <div className="spec-title">
        <h2>{title}</h2>
        {action}
      </div>
      <p className="spec-subtitle">{subtitle}</p>
      {notice}
      {children}
    </aside>
  );
}

/** Rows under a ruled heading, with something to choose on its right. */
export function Rows({
  title,
  aside,
  page,
  children,
}: {
  title: string;
  aside?: ReactNode;
  /** The handbook's page that explains it. */
  page?: string;
  children: ReactNode;
}) {
  return (
    <section className="rows">
      <header>
        <h3>{page ? <Link to={`/handbook/${page}`}>{title}</Link> : title}</h3>
        {aside}
      </header>
      {children}
    </section>
  );
}

/** A figure that follows from others. */
export function Result({ label, value }: { label: string; value: string }) {
  return (
    <div className="row-result">
      <span>{label}</span>
      <span className="figure">{value}</span>
    </div>
  );
}
