import { useMemo } from 'react';
import useSWR from 'swr';
import { NOTHING_PLANNED, type PlannedInTexts } from '#core/derive/sketch-totals.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { call } from './client.ts';

/** Which boxes of sketches have a place in the texts of a revision, and where something is said; what was known before while it is fetched. */
export function usePlannedTexts(site: SiteKey, revision: number, isAsked: boolean): PlannedInTexts {
  const { data } = useSWR(
    isAsked ? [`/sites/${site}/planned-texts`, revision] : null,
    () => call('listPlannedTexts', { site }),
    { keepPreviousData: true },
  );
  return useMemo(
    () =>
      data
        ? new Map(
            data.pages.map(({ page, boxes, written }) => [
              page,
              new Map(boxes.map((box) => [box, written.includes(box)])),
            ]),
          )
        : NOTHING_PLANNED,
    [data],
  );
}
