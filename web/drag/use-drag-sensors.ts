import { MouseSensor, TouchSensor, useSensor, useSensors } from '@dnd-kit/core';

/** A press becomes a drag after so many pixels, so that a click stays a click. */
const STARTS_AFTER = 6;
/** A finger that rests so long takes up what it is on; one that moves scrolls. */
const HOLD_MS = 350;

/** How things are taken up everywhere: by mouse and by finger. The same is done by keys in other ways, so none are here. */
export const useDragSensors = () =>
  useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: STARTS_AFTER } }),
    useSensor(TouchSensor, { activationConstraint: { delay: HOLD_MS, tolerance: STARTS_AFTER } }),
  );
