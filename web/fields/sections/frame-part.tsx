import { type ReactNodeViewProps, NodeViewWrapper } from '@tiptap/react';
import { useState } from 'react';
import {
  FRAME,
  FRAME_SHAPES,
  type FrameSetting,
  type FrameShape,
  frameAddressSchema,
  hostOfFrame,
} from '#core/sections/frame.ts';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { DraftField } from '../draft-field.tsx';
import { OF_THE_DESK } from '../page-look.ts';
import { type SettingsProps, editorPart } from './editor-part.ts';

export const FRAME_PART = editorPart(FRAME.type, WhichFrame);

function WhichFrame({ attributes: { address, title, shape }, set }: SettingsProps<FrameSetting>) {
  const [fault, setFault] = useState<string | null>(null);
  return (
    <div className="grid w-full gap-2 @md:grid-cols-2">
      <DraftField
        label="Address of the frame"
        saved={address}
        longest={2000}
        placeholder="https://"
        hint={fault ?? 'The address that the other site gives for showing it elsewhere.'}
        onSave={(typed) => {
          const next = addressIn(typed);
          const { error } = frameAddressSchema.safeParse(next);
          setFault(next !== '' && error ? error.issues[0]!.message : null);
          if (next === '' || !error) set({ address: next });
        }}
      />
      <DraftField
        label="What it shows"
        saved={title}
        longest={200}
        placeholder="The launch of Marigold, as a film"
        onSave={(next) => set({ title: next.trim() })}
      />
      <Choice label="Height" value={shape} onChange={(event) => set({ shape: event.target.value as FrameShape })}>
        {Object.entries(FRAME_SHAPES).map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </Choice>
      <AllowHost address={address} />
    </div>
  );
}

/** The address in what was pasted: many sites give a whole element. */
const addressIn = (typed: string): string =>
  (/^\s*<iframe\b[^>]{0,2000}?\ssrc=["']([^"']+)["']/i.exec(typed)?.[1] ?? typed).replaceAll('&amp;', '&').trim();

/** Whether pages may show frames of the host, and the way to that. */
function AllowHost({ address }: { readonly address: string }) {
  const { site, store, setBeside } = useWorkbench();
  const host = hostOfFrame(address);
  if (host === null) return null;
  const { hosts } = site.settings;
  const isAllowed = hosts.includes(host);
  return (
    <div className="flex flex-col items-start gap-1 self-end text-small">
      <span className={isAllowed ? 'text-quiet' : 'text-attention'}>
        {isAllowed ? `Frames of ${host} are allowed.` : `Until ${host} is allowed, visitors get a link.`}
      </span>
      {isAllowed ? (
        <Button look="quiet" isTight className="-ml-2" onClick={() => setBeside({ kind: 'hosts', id: null })}>
          Allowed hosts…
        </Button>
      ) : (
        <Button onClick={() => store.apply([{ name: 'site.set', fields: { hosts: [...hosts, host] } }])}>
          Allow frames of {host}
        </Button>
      )}
    </div>
  );
}

/** An outside frame while one writes: what visitors see before they ask for it. */
export function FrameView({ node, selected }: ReactNodeViewProps) {
  const { site } = useWorkbench();
  const { address, title, shape } = node.attrs as FrameSetting;
  const host = hostOfFrame(address);
  const isAllowed = host !== null && site.settings.hosts.includes(host);
  const words = title || host || 'Outside frame';
  return (
    <NodeViewWrapper
      as="figure"
      aria-label={`Outside frame: ${words}`}
      className={`outside is-${shape} ${selected ? 'outline-2 outline-offset-2 outline-accent' : ''}`}
    >
      {host === null ? (
        <p className={`${OF_THE_DESK} text-quiet`}>Outside frame: it has no address yet.</p>
      ) : (
        <>
          {/* Where it leads is followed by visitors alone. */}
          <a href={address} tabIndex={-1} onClick={(event) => event.preventDefault()}>
            Show here: {words}
          </a>
          <figcaption>
            {isAllowed
              ? `From ${host}. Nothing is loaded from there until you show it.`
              : `Visitors get a link: frames of ${host} are not allowed.`}
          </figcaption>
        </>
      )}
    </NodeViewWrapper>
  );
}
