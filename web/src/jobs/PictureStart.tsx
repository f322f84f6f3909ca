/** A job from a picture: how large it is, and its outline is found. */
import { useMutation } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { Alert, Button, Modal } from 'react-bootstrap';
import { useNavigate } from 'react-router';

import { api } from '../api/client';
import { useMeta } from '../api/queries';
import { PlainLength } from '../card/PlainLength';

/** How wide a picture is until somebody says, mm. */
const WIDTH = 60;

interface Props {
  file: File;
  onClose: () => void;
}

export function PictureStart({ file, onClose }: Props) {
  const [width, setWidth] = useState(WIDTH);
  const meta = useMeta().data;
  const navigate = useNavigate();
  const url = useMemo(() => URL.createObjectURL(file), [file]);
  useEffect(() => () => URL.revokeObjectURL(url), [url]);
  const create = useMutation({
    mutationFn: async () => {
      const blob = await api.addBlob(file);
      const job = await api.startFromPicture(blob.id, file.name, width);
      return api.createJob(job);
    },
    onSuccess: (opened) => void navigate(`/jobs/${opened.id}/form`),
  });
  const isDrawing = /\.(svg|pdf|dxf|fold)$/i.test(file.name);
  const isLinesAlone = /\.(dxf|fold)$/i.test(file.name);
  const [page, setPage] = useState(1);
  const lines = useMutation({
    mutationFn: async () => api.createJob((await api.bringDrawing(file, page)).job),
    onSuccess: (opened) => void navigate(`/jobs/${opened.id}/form`),
  });
  const failed = create.error ?? lines.error;
  const unit = meta?.units.find((known) => known.unit === meta.starts.job.unit);
  return (
    <Modal show onHide={onClose} className="picture-start">
      <Modal.Header closeButton>
        <Modal.Title>A job from “{file.name}”</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {file.type.startsWith('image/') && <img src={url} alt="" />}
        {unit && !isLinesAlone && (
          <PlainLength
            label="Picture’s width"
            note="Of the whole picture; it can be changed at any time."
            value={width}
            unit={unit}
            onTry={setWidth}
            onKeep={setWidth}
          />
        )}
        {/\.pdf$/i.test(file.name) && (
          <label className="picture-page">
            Page{' '}
            <input
              type="number"
              min={1}
              max={9999}
              value={page}
              onChange={(event) => setPage(Math.max(1, Number(event.target.value) || 1))}
            />
          </label>
        )}
        {failed && <Alert variant="danger">{failed.message}</Alert>}
      </Modal.Body>
      <Modal.Footer>
        {isDrawing && (
          <Button
            variant={isLinesAlone ? 'primary' : 'outline-primary'}
            disabled={lines.isPending}
            onClick={() => lines.mutate()}
          >
            {lines.isPending ? 'Reading its lines …' : 'Take its lines'}
          </Button>
        )}
        {!isLinesAlone && (
          <Button disabled={create.isPending} onClick={() => create.mutate()}>
            {create.isPending ? 'Finding its outline …' : 'Find its outline'}
          </Button>
        )}
      </Modal.Footer>
    </Modal>
  );
}
