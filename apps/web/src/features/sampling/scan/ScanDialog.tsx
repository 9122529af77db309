import { Box, Button } from '@mui/material';
import jsQR from 'jsqr';
import { useEffect, useRef, useState } from 'react';
import { DialogFrame } from '../../../ui/DialogFrame.tsx';
import { colours } from '../../../ui/theme.ts';

/** Between looks at the camera's picture, ms. */
const EVERY = 160;
/** The same label in view is one scan for so long, ms. */
const SAME = 2500;
/** Longest side of the picture that is looked at, pixels. */
const LONGEST = 720;

/** Words for a camera that cannot be used. */
function cameraTrouble(error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError')
    return 'The camera is not allowed here: allow it in the browser’s settings of this page, or type the code.';
  if (name === 'NotFoundError' || name === 'OverconstrainedError')
    return 'This device has no camera that can be used: type the code.';
  return 'The camera cannot be opened, perhaps because something else uses it: type the code.';
}

interface ScanDialogProps {
  /** Told what a label says, once each time it comes into view. */
  readonly onCode: (text: string) => void;
  readonly onClose: () => void;
  /** What came of the last one. */
  readonly told?: string | undefined;
}

/** Looks through the camera for the labels of bags; the pictures stay on the device. */
export function ScanDialog({ onCode, onClose, told }: ScanDialogProps) {
  const video = useRef<HTMLVideoElement>(null);
  const tell = useRef(onCode);
  useEffect(() => {
    tell.current = onCode;
  });
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    let stream: MediaStream | undefined;
    const gone = new AbortController();
    let last = { text: '', at: 0 };
    const canvas = document.createElement('canvas');
    const context = canvas.getContext('2d', { willReadFrequently: true });
    const look = (): void => {
      const view = video.current;
      if (!view || !context || view.videoWidth === 0) return;
      const scale = Math.min(1, LONGEST / Math.max(view.videoWidth, view.videoHeight));
      canvas.width = Math.round(view.videoWidth * scale);
      canvas.height = Math.round(view.videoHeight * scale);
      context.drawImage(view, 0, 0, canvas.width, canvas.height);
      const { data, width, height } = context.getImageData(0, 0, canvas.width, canvas.height);
      const text = jsQR(data, width, height, { inversionAttempts: 'dontInvert' })?.data;
      const now = Date.now();
      if (!text) return;
      const again = text === last.text && now - last.at < SAME;
      last = { text, at: now };
      if (!again) tell.current(text);
    };
    const timer = setInterval(look, EVERY);
    void (async () => {
      try {
        if (!('mediaDevices' in navigator)) throw new DOMException('', 'NotFoundError');
        stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } });
        if (gone.signal.aborted) stream.getTracks().forEach((track) => track.stop());
        else if (video.current) {
          video.current.srcObject = stream;
          await video.current.play();
        }
      } catch (error) {
        if (!gone.signal.aborted) setTrouble(cameraTrouble(error));
      }
    })();
    return () => {
      gone.abort();
      clearInterval(timer);
      stream?.getTracks().forEach((track) => track.stop());
    };
  }, []);
  return (
    <DialogFrame
      title="Scan a bag’s label"
      onClose={onClose}
      width="xs"
      actions={
        <>
          <Button variant="contained" onClick={onClose}>
            Done
          </Button>
        </>
      }
    >
      {trouble ? (
        <Box role="alert" sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 1 }}>
          {trouble}
        </Box>
      ) : (
        <Box
          component="video"
          ref={video}
          muted
          playsInline
          aria-label="What the camera sees"
          sx={{ width: '100%', aspectRatio: '4 / 3', objectFit: 'cover', background: colours.ink, display: 'block' }}
        />
      )}
      <Box role="status" sx={{ minHeight: 28, mt: 1, fontWeight: 700 }}>
        {told ?? (trouble ? '' : 'Hold the square of the label into the picture.')}
      </Box>
    </DialogFrame>
  );
}
