/** The handbook: short pages, found by any of their words. */
import { useEffect, useState } from 'react';
import { Form } from 'react-bootstrap';
import { Link, useParams, useSearchParams } from 'react-router';

import './handbook.css';
import { found, PAGES } from './pages';
import { Sketch } from './Sketch';

export function HandbookPage() {
  const { page: id } = useParams();
  const [search, setSearch] = useSearchParams();
  // The field has every letter at once; the address follows.
  const [text, setText] = useState(search.get('text') ?? '');
  const listed = text ? found(text) : PAGES;
  const page = PAGES.find((own) => own.id === id) ?? listed[0] ?? PAGES[0];
  const shown = id && PAGES.some((own) => own.id === id) ? page : listed[0];
  useEffect(() => {
    document.title = `${shown?.title ?? 'Handbook'} · Aptum`;
  }, [shown?.title]);
  const query = text ? `?text=${encodeURIComponent(text)}` : '';
  return (
    <div className="desk handbook">
      <header className="top">
        <div className="brand">
          <Link to="/" className="brand-name" title="All jobs">
            Aptum
          </Link>
          <h1 className="brand-line">Handbook</h1>
        </div>
        <label htmlFor="find-in-handbook" className="visually-hidden">
          Find in the handbook
        </label>
        <Form.Control
          id="find-in-handbook"
          type="search"
          placeholder="Bleed, nick, print at 100 % …"
          value={text}
          onChange={({ target: { value } }) => {
            setText(value);
            setSearch(value ? { text: value } : {}, { replace: true });
          }}
        />
        <div className="tools">
          <Link to="/">Jobs</Link>
          <Link to="/workshop">Workshop</Link>
        </div>
      </header>
      <main className="handbook-desk">
        <nav aria-label="Pages">
          <ol>
            {listed.map((own) => (
              <li key={own.id}>
                <Link
                  to={`/handbook/${own.id}${query}`}
                  aria-current={own.id === shown?.id ? 'page' : undefined}
                >
                  {own.title}
                </Link>
              </li>
            ))}
          </ol>
          {listed.length === 0 && <p>No page has all of these words. Try one of them.</p>}
        </nav>
        {shown && (
          <article key={shown.id}>
            <h2>{shown.title}</h2>
            {shown.drawing && <Sketch name={shown.drawing} />}
            {shown.text.map((paragraph) => (
              <p key={paragraph}>{paragraph}</p>
            ))}
            <p className="handbook-see">
              See also{' '}
              {shown.see.map((other, at) => (
                <span key={other}>
                  {at > 0 && ', '}
                  <Link to={`/handbook/${other}`}>
                    {PAGES.find((own) => own.id === other)?.title ?? other}
                  </Link>
                </span>
              ))}
            </p>
          </article>
        )}
      </main>
    </div>
  );
}
