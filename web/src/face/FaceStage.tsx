/** Face: what is printed on the piece. */
import { withChanges, withField } from '../api/fields';
import type { Face } from '../api/generated/types';
import { FlatBoard } from '../board/FlatBoard';
import { FigureField } from '../card/FigureField';
import { Rows, SpecCard } from '../card/SpecCard';
import { Switch } from '../card/Switch';
import { SwitchField } from '../card/SwitchField';
import type { StageProps } from '../job/StageProps';
import { ColourField } from './ColourField';

const PADDING = { left: 60, top: 60, right: 40, bottom: 50 };

/** What a face starts with when it is switched on. */
const FIRST: Face = { colour: null, captions: 'names', coverage: 'faces', bleed: 1.5 };

export function FaceStage(props: StageProps) {
  const { session, piece, unit, notice } = props;
  const { job } = session;
  const { face } = job;
  return (
    <main className="stage">
      <FlatBoard stage={props} label={`Printed face of ${job.name}`} padding={PADDING} isPrinted>
        {!face && <p className="stale-note">Nothing is printed on this job: it is only cut</p>}
      </FlatBoard>
      <SpecCard
        title={face ? 'Printed face' : 'Only cut'}
        subtitle={face ? 'Seen from outside' : 'No print, no marks, no printed page'}
        notice={notice}
      >
        <Rows
          title="Print"
          aside={
            <Switch
              label="Print"
              value={face ? 'printed' : 'bare'}
              choices={[
                { value: 'printed', label: 'printed' },
                { value: 'bare', label: 'only cut' },
              ]}
              onChoose={(choice) =>
                void session.keep((now) =>
                  withField(now, 'face', choice === 'printed' ? FIRST : null),
                )
              }
            />
          }
        >
          {face && (
            <>
              <ColourField
                colour={face.colour}
                onTry={(colour) => session.propose((now) => withField(now, 'face.colour', colour))}
                onKeep={(colour) =>
                  void session.keep((now) => withField(now, 'face.colour', colour))
                }
              />
              <SwitchField
                label="Panel names"
                value={face.captions}
                choices={[
                  { value: 'names', label: 'printed' },
                  { value: 'none', label: 'none' },
                ]}
                onChoose={(captions) =>
                  void session.keep((now) => withField(now, 'face.captions', captions))
                }
              />
              <SwitchField
                name="Carry print"
                label="Which panels carry print"
                value={face.coverage}
                choices={[
                  { value: 'faces', label: 'outer panels' },
                  { value: 'flaps', label: 'flaps too' },
                ]}
                onChoose={(coverage) =>
                  void session.keep((now) =>
                    withChanges(now, [{ field: 'face.coverage', value: coverage }]),
                  )
                }
              />
              <FigureField
                figure={{
                  field: 'face.bleed',
                  label: 'Bleed',
                  note: 'How far the colour goes past the cut.',
                  value: face.bleed,
                  text: piece.bleed_text,
                }}
                session={session}
                unit={unit}
              />
            </>
          )}
        </Rows>
        <p className="card-note">
          {face
            ? 'The colour goes past the cut by the bleed, so that no white shows where a cut strays. Bare flaps may leave the printable area.'
            : 'Without print the cutter needs no marks, and the whole sheet within its reach is free.'}
        </p>
      </SpecCard>
    </main>
  );
}
