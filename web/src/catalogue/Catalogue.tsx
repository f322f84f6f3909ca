/** The catalogue of structures by family, each small, flat and folded, found by name and by use. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Alert, Button } from 'react-bootstrap';

import { api } from '../api/client';
import { structureOf } from '../api/forms';
import type { AtHand, CatalogueEntry, Form } from '../api/generated/types';
import { FoldedPicture } from '../fold/FoldedPicture';

interface Props {
  /** What is at hand: the form and card that structures are shown with. */
  hand: AtHand;
  onChoose: (form: Form) => void;
}

/** True when every word of the search begins a word of what the structure is called or used for. */
function isFound(entry: CatalogueEntry, search: string): boolean {
  const words = [entry.name, entry.family_name, entry.about, ...entry.uses].join(' ').toLowerCase();
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => words.split(/[^\p{L}\d]+/u).some((known) => known.startsWith(word)));
}

export function Catalogue({ hand, onChoose }: Props) {
  const [search, setSearch] = useState('');
  const entries = useQuery({
    queryKey: ['catalogue', hand],
    queryFn: () => api.catalogue(hand),
    staleTime: 60_000,
  });
  const found = (entries.data ?? []).filter((entry) => isFound(entry, search.trim()));
  const chosen = structureOf(hand.form)?.structure;
  const families = [...new Set(found.map((entry) => entry.family))];
  return (
    <div className="catalogue">
      <div className="catalogue-search">
        <input
          type="search"
          aria-label="Search by name or use"
          placeholder="drawer, hang, no glue …"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <span role="status">
          {entries.data ? `${found.length} of ${entries.data.length} structures` : ''}
        </span>
      </div>
      {entries.error && <Alert variant="danger">{entries.error.message}</Alert>}
      {entries.data && found.length === 0 && (
        <p className="empty">
          Nothing is called or used for “{search}”.{' '}
          <Button variant="plain" onClick={() => setSearch('')}>
            Show all
          </Button>
        </p>
      )}
      {families.map((family) => {
        const own = found.filter((entry) => entry.family === family);
        return (
          <section key={family} aria-label={own[0]?.family_name}>
            <h2>{own[0]?.family_name}</h2>
            <ul>
              {own.map((entry) => (
                <li key={entry.id}>
                  <Entry
                    entry={entry}
                    isChosen={chosen === entry.id}
                    isOdd={chosen !== '' && !entry.is_at_hand}
                    onChoose={onChoose}
                  />
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </div>
  );
}

interface EntryProps {
  entry: CatalogueEntry;
  isChosen: boolean;
  /** Shown at another size than the one at hand. */
  isOdd: boolean;
  onChoose: (form: Form) => void;
}

function Entry({ entry, isChosen, isOdd, onChoose }: EntryProps) {
  const { flat, folded } = entry;
  const [width, height] = flat.size;
  const edge = Math.max(width, height) * 0.02;
  return (
    <article className={`structure${isChosen ? ' is-chosen' : ''}`}>
      <Button
        variant="bare"
        className="structure-choose"
        aria-current={isChosen || undefined}
        onClick={() => onChoose(entry.form)}
      >
        <span className="structure-views">
          <svg
            viewBox={`${-edge} ${-edge} ${width + 2 * edge} ${height + 2 * edge}`}
            aria-hidden="true"
          >
            <path className="small-blank" d={flat.outline} fill={flat.colour} fillRule="evenodd" />
            <path className="line crease" d={flat.creases} />
          </svg>
          <FoldedPicture drawing={folded} colour={flat.colour} />
        </span>
        <span className="structure-name">{entry.name}</span>
        <span className="structure-about">{entry.about}</span>
        <span className="structure-size figure">
          {entry.size_text}
          {isOdd && ', its own size'}
        </span>
      </Button>
      <ul className="structure-presets" aria-label={`Ordinary sizes of ${entry.name}`}>
        {entry.presets.map((preset) => (
          <li key={preset.name}>
            <Button variant="plain" title={preset.text} onClick={() => onChoose(preset.form)}>
              {preset.name}
            </Button>
          </li>
        ))}
      </ul>
    </article>
  );
}
