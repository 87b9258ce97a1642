import * as Y from 'yjs';
import { JOINT_FRAGMENT, type JointAnswer, type JointBody } from '#contract/joint-text.ts';

export interface Answered {
  readonly status: number;
  readonly json: unknown;
}

/** A browser, as far as it writes in the text of a page that others write in too. */
export class JointWriter {
  readonly shared = new Y.Doc();
  readonly #send: (body: JointBody) => Promise<Answered | null>;
  #waiting: Uint8Array[] = [];
  #base: string | null = null;
  #seq = 0;
  savedSeq = 0;

  /** @param send sends what is written, and gives null where no answer came */
  constructor(send: (body: JointBody) => Promise<Answered | null>) {
    this.#send = send;
    this.shared.on('update', (update: Uint8Array, origin: unknown) => {
      if (origin !== this) this.#waiting.push(update);
    });
  }

  get fragment(): Y.XmlFragment {
    return this.shared.getXmlFragment(JOINT_FRAGMENT);
  }
  get base(): string | null {
    return this.#base;
  }
  get seq(): number {
    return this.#seq;
  }
  /** Its paragraphs, with slashes between those that say something. */
  get text(): string {
    return this.fragment
      .toArray()
      .map((part) => (part as Y.XmlElement).toString().replaceAll(/<[^>]*>/g, ''))
      .filter(Boolean)
      .join(' / ');
  }

  /** Puts a word between brackets into the first paragraph, between two others, at a part of them from 0 to 1. */
  insert(word: string, part: number): void {
    const first = this.fragment.get(0) as Y.XmlElement;
    const text = first.get(0) as Y.XmlText | undefined;
    if (!text) return first.insert(0, [new Y.XmlText(`[${word}]`)]);
    const gaps = [0, ...[...text.toString().matchAll(/\]/g)].map(({ index }) => index + 1)];
    text.insert(gaps[Math.floor(part * gaps.length)]!, `[${word}]`);
  }

  /** Sends what waits and takes what came. @param sent what is sent otherwise than it would be */
  async exchange({ save = false, ...sent }: Partial<JointBody> = {}): Promise<Answered | null> {
    const count = this.#waiting.length;
    const answer = await this.#send({
      tab: String(this.shared.clientID),
      base: this.#base,
      after: this.#seq,
      update: count === 0 ? null : Buffer.from(Y.mergeUpdates(this.#waiting)).toString('base64'),
      caret: null,
      save,
      ...sent,
    });
    if (answer?.status !== 200) return answer;
    const joint = answer.json as JointAnswer;
    this.#waiting = this.#waiting.slice(count);
    this.#base = joint.base;
    this.#seq = joint.seq;
    this.savedSeq = joint.savedSeq;
    if (joint.update) Y.applyUpdate(this.shared, Buffer.from(joint.update, 'base64'), this);
    return answer;
  }
}
