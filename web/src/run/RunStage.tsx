/** Run: sheets are printed, and what follows at the machines is led step by step. */
import { useState } from 'react';

import type { StageProps } from '../job/StageProps';
import { RunFiles } from './RunFiles';
import { RunSteps } from './RunSteps';
import './run.css';
import { useRun } from './useRun';

export function RunStage(props: StageProps) {
  const { id, preview } = props;
  const run = useRun(id, preview.code);
  const [wantsFiles, setWantsFiles] = useState(false);
  const stands = run.view?.run ?? null;
  if (stands && !wantsFiles) {
    return <RunSteps {...props} run={run} stands={stands} onFiles={() => setWantsFiles(true)} />;
  }
  return <RunFiles {...props} run={run} onSteps={stands ? () => setWantsFiles(false) : null} />;
}
