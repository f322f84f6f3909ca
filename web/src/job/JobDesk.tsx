/** An open job: route, stage, fit strip. */
import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link, useNavigate, useSearchParams } from 'react-router';

import { useUnit, useMeta } from '../api/queries';
import type { Change, Check, Stage, Workshop } from '../api/generated/types';
import type { OpenJob } from '../api/views';
import { FaceStage } from '../face/FaceStage';
import { FitStrip } from '../fit/FitStrip';
import { Remedies } from '../fit/Remedies';
import { FormStage } from '../form/FormStage';
import { RehearsalStage } from '../rehearsal/RehearsalStage';
import { ToolingStage } from '../tooling/ToolingStage';
import { RunStage } from '../run/RunStage';
import { SheetStage } from '../sheet/SheetStage';
import { ConflictDialog } from './ConflictDialog';
import { JobName } from './JobName';
import { Mended } from './Mended';
import { PiecePicker } from './PiecePicker';
import { sessionOf } from './pieces';
import { Route } from './Route';
import { Shortcuts } from './Shortcuts';
import type { StageProps } from './StageProps';
import { Unusable } from './Unusable';
import { type JobSession, useJobSession } from './useJobSession';

interface Props {
  opened: OpenJob;
  stage: Stage;
  workshop: Workshop;
}

const WORK: Record<Stage, (props: StageProps) => React.ReactNode> = {
  form: FormStage,
  face: FaceStage,
  sheet: SheetStage,
  tooling: ToolingStage,
  rehearsal: RehearsalStage,
  run: RunStage,
};

export function JobDesk({ opened, stage, workshop }: Props) {
  const session = useJobSession(opened);
  const unit = useUnit(session.job.unit);
  const navigate = useNavigate();
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [isHelpOpen, setHelpOpen] = useState(false);
  const [search, setSearch] = useSearchParams();
  const wanted = search.get('piece');
  const setPiece = (piece: string) => setSearch({ piece }, { replace: true });
  const { preview } = session;
  const [more, setMore] = useState<Check[]>([]);
  const checks = [...(preview?.checks ?? []), ...more];
  const chosen = checks.find((check) => check.id === chosenId) ?? null;

  useKeys(opened.id, session, () => setHelpOpen(true));
  useEffect(() => {
    document.title = `${session.job.name} · Aptum`;
  }, [session.job.name]);

  const change = (changes: Change[]) => void session.keep(...changes);
  const choose = (id: string | null) => {
    setChosenId(id);
    const place = checks.find((check) => check.id === id)?.place;
    // A place is shown on the stage that has its drawing.
    const goal = place?.drawing === 'sheet' ? 'sheet' : 'form';
    const shows = place?.drawing === 'sheet' ? ['sheet', 'tooling'] : ['form', 'face'];
    const query = place?.piece ? `?piece=${place.piece}` : '';
    if (place && !shows.includes(stage)) void navigate(`/jobs/${opened.id}/${goal}${query}`);
    else if (place?.piece && place.piece !== wanted) setPiece(place.piece);
  };

  const Work = WORK[stage];
  const pieces = preview?.pieces ?? [];
  const piece = pieces.find(({ id }) => id === wanted) ?? pieces[0];
  const own = session.job.pieces.find(({ id }) => id === piece?.id);
  const stages = useMeta().data?.stages ?? [];
  const isOnPiece = stage === 'form' || stage === 'face';
  return (
    <div className="desk">
      <header className="top">
        <div className="brand">
          <Link to="/" className="brand-name" title="All jobs">
            Aptum
          </Link>
          <JobName session={session} />
          <h1 className="visually-hidden">
            {session.job.name}, {stages.find((known) => known.stage === stage)?.name}
          </h1>
        </div>
        <Route id={opened.id} stage={stage} preview={preview} />
        <Tools session={session} onHelp={() => setHelpOpen(true)} />
      </header>
      {session.trouble !== null && (
        <div className="trouble" role="alert">
          {session.trouble}
          <Button size="sm" variant="outline-primary" onClick={session.retry}>
            Try again
          </Button>
          <Button size="sm" variant="link" onClick={session.drop}>
            Back to what is saved
          </Button>
        </div>
      )}
      {preview && piece && own ? (
        <>
          {isOnPiece && <PiecePicker pieces={pieces} piece={piece.id} onPick={setPiece} />}
          <div
            className="piece-panel"
            id="piece-panel"
            {...(isOnPiece && pieces.length > 1
              ? { role: 'tabpanel', 'aria-labelledby': `piece-tab-${piece.id}` }
              : {})}
          >
            <Mended
              key={stage}
              what="This stage"
              drawn={preview}
              action={
                session.saving === 'draft' ? (
                  <Button variant="outline-primary" onClick={session.drop}>
                    Back to what is saved
                  </Button>
                ) : (
                  <Button
                    variant="outline-primary"
                    disabled={!session.canUndo}
                    onClick={session.undo}
                  >
                    Undo the last change
                  </Button>
                )
              }
            >
              <Work
                key={isOnPiece ? piece.id : 'all'}
                id={opened.id}
                session={sessionOf(session, own)}
                preview={preview}
                piece={piece}
                workshop={workshop}
                unit={unit}
                chosen={chosen}
                notice={
                  chosen && (
                    <Remedies check={chosen} onApply={change} onClose={() => setChosenId(null)} />
                  )
                }
                onChanges={change}
                onMore={setMore}
              />
            </Mended>
          </div>
          <FitStrip
            checks={checks}
            stage={stage}
            chosen={chosenId}
            onChoose={choose}
            isCurrent={session.isCurrent}
          />
        </>
      ) : (
        <Unusable session={session} workshop={workshop} onChanges={change} />
      )}
      <ConflictDialog session={session} />
      <Shortcuts isOpen={isHelpOpen} onClose={() => setHelpOpen(false)} />
    </div>
  );
}

const SAVING = { saved: 'saved', draft: 'draft', saving: 'saving …', 'not-saved': 'not saved' };

function Tools({ session, onHelp }: { session: JobSession; onHelp: () => void }) {
  return (
    <div className="tools">
      <span className={`saving saving-${session.saving}`} role="status">
        {SAVING[session.saving]}
      </span>
      <Button
        variant="light"
        size="sm"
        disabled={!session.canUndo}
        onClick={session.undo}
        title="Undo (Ctrl Z)"
      >
        Undo
      </Button>
      <Button
        variant="light"
        size="sm"
        disabled={!session.canRedo}
        onClick={session.redo}
        title="Redo (Ctrl Shift Z)"
      >
        Redo
      </Button>
      <Button
        variant="light"
        size="sm"
        onClick={onHelp}
        aria-label="Shortcuts"
        title="Shortcuts (?)"
      >
        ?
      </Button>
    </div>
  );
}

/** Undo, redo, stages by number, and help; not while something is typed. */
function useKeys(id: number, session: JobSession, onHelp: () => void) {
  const stages = useMeta().data?.stages;
  const navigate = useNavigate();
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const typing = target.matches('input, textarea, select');
      const command = event.ctrlKey || event.metaKey;
      if (command && event.key.toLowerCase() === 'z' && !typing) {
        event.preventDefault();
        if (event.shiftKey) session.redo();
        else session.undo();
      } else if (command && event.key.toLowerCase() === 'y' && !typing) {
        event.preventDefault();
        session.redo();
      } else if (!typing && !command && event.key === '?') {
        onHelp();
      } else if (event.altKey && /^[1-9]$/.test(event.key)) {
        event.preventDefault();
        const station = stages?.[Number(event.key) - 1];
        if (station) void navigate(`/jobs/${id}/${station.stage}`);
      }
    };
    window.addEventListener('keydown', key);
    return () => window.removeEventListener('keydown', key);
  });
}
