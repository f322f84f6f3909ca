/** What words are set in: a typeface of the shelf, or one of one's own. */
import { set } from '../api/fields';
import type { OwnTypeface as Own } from '../api/generated/types';
import type { PieceSession } from '../job/pieces';
import { OwnTypeface } from './OwnTypeface';
import { Typefaces } from './Typefaces';

interface Props {
  /** The field that holds both. */
  path: string;
  typeface: string;
  own: Own | null;
  session: PieceSession;
}

export function SetIn({ path, typeface, own, session }: Props) {
  return (
    <>
      <Typefaces
        chosen={own ? '' : typeface}
        onChoose={(id) =>
          void session.keep(
            set(`${path}.typeface`, id),
            ...(own ? [set(`${path}.own_typeface`, null)] : []),
          )
        }
      />
      <OwnTypeface
        {...{ own, session }}
        onChoose={(chosen) => void session.keep(set(`${path}.own_typeface`, chosen))}
      />
    </>
  );
}
