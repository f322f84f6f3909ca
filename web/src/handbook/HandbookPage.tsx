/** The handbook: short pages, found by any of their words. */
import { useEffect } from 'react';
import { Link, useParams } from 'react-router';

import { Find, PageTop } from '../top/PageTop';
import { useSearchText } from '../top/useSearchText';
import './handbook.css';
import { found, PAGES } from './pages';
import { Sketch } from './Sketch';

export function HandbookPage() {
  const { page: id } = useParams();
  const [text, setText] = useSearchText();
  const listed = text ? found(text) : PAGES;
  const shown = PAGES.find((own) => own.id === id) ?? listed[0];
  useEffect(() => {
    document.title = `${shown?.title ?? 'Handbook'} · Aptum`;
  }, [shown?.title]);
  const query = text ? `?text=${encodeURIComponent(text)}` : '';
  return (
    <div className="desk handbook">
      <PageTop
        title="Handbook"
        tools={
          <>
            <Link to="/">Jobs</Link>
            <Link to="/workshop">Workshop</Link>
          </>
        }
      >
        <Find
          label="Find in the handbook"
          example="Bleed, nick, print at 100 % …"
          text={text}
          onText={setText}
        />
      </PageTop>
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
            <Sketch name={shown.drawing} />
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
