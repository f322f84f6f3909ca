/** What is searched for: the field has every letter at once, and the address follows. */
import { useState } from 'react';
import { useSearchParams } from 'react-router';

export function useSearchText(): [string, (text: string) => void] {
  const [search, setSearch] = useSearchParams();
  const [text, setText] = useState(search.get('text') ?? '');
  const change = (next: string) => {
    setText(next);
    setSearch(next ? { text: next } : {}, { replace: true });
  };
  return [text, change];
}
