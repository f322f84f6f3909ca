/** A moment of the work that is looked at: dragged, or played at true speed or faster. */
import { useEffect, useRef, useState } from 'react';

/** How many times faster than true it may be played. */
export const SPEEDS = [1, 5, 20];

export interface Playing {
  /** The moment, s; all of it is done at the end. */
  now: number;
  seconds: number;
  isOn: boolean;
  speed: number;
  go: (to: number) => void;
  play: () => void;
  setSpeed: (speed: number) => void;
}

export function usePlaying(seconds: number): Playing {
  const [at, setAt] = useState<number | null>(null);
  const [isOn, setOn] = useState(false);
  const [speed, setSpeed] = useState(5);
  const last = useRef(0);
  const now = Math.min(at ?? seconds, seconds);
  useEffect(() => {
    if (!isOn) return;
    let frame = 0;
    last.current = performance.now();
    const step = (time: number) => {
      const passed = ((time - last.current) / 1000) * speed;
      last.current = time;
      setAt((before) => {
        const next = (before ?? 0) + passed;
        if (next >= seconds) setOn(false);
        return Math.min(next, seconds);
      });
      frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
  }, [isOn, speed, seconds]);
  const play = () => {
    if (!isOn && now >= seconds) setAt(0);
    setOn(!isOn);
  };
  const go = (to: number) => {
    setOn(false);
    setAt(to);
  };
  return { now, seconds, isOn, speed, go, play, setSpeed };
}
