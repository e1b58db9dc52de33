import type { ArtefactId } from '@caderno/core/artefacts';
import { remarkId, type RemarkId, type RemarkPlace, type RemarkThread } from '@caderno/core/remarks';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useRef } from 'react';
import { call, tellFailure, useRefresh } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

/** What can be said. Each answers whether it was. */
export interface Speaking {
  readonly begin: (place: RemarkPlace, said: string, version: number, text: string, offer: string | null) => Promise<boolean>;
  readonly answer: (thread: RemarkId, text: string, offer?: string | null) => Promise<boolean>;
  readonly reword: (remark: RemarkId, text: string) => Promise<boolean>;
  readonly takeBack: (remark: RemarkId) => Promise<boolean>;
  readonly takeOffer: (remark: RemarkId, version: number) => Promise<boolean>;
  readonly settle: (thread: RemarkId, settled: boolean) => Promise<boolean>;
}

/** What is said of an artefact; everybody's comes in as it is said. */
export function useRemarks(id: ArtefactId): { readonly threads: readonly RemarkThread[] | undefined; readonly speaking: Speaking } {
  const { project } = useFrame();
  const client = useQueryClient();
  const refresh = useRefresh(project);
  const { data } = useQuery({ queryKey: [project, 'remarks', id], queryFn: () => call('listRemarks', { params: { project, id } }) });
  // What could not be sent is sent again under the same id: it is said once.
  const unsent = useRef(new Map<string, RemarkId>());
  const speaking = useMemo((): Speaking => {
    const tell = async (send: () => Promise<readonly RemarkThread[]>): Promise<boolean> => {
      try {
        client.setQueryData([project, 'remarks', id], await send());
        void client.invalidateQueries({ queryKey: [project, 'remarks', 'open'] });
        return true;
      } catch (error) {
        tellFailure(error);
        return false;
      }
    };
    const once = async (key: string, send: (remark: RemarkId) => Promise<readonly RemarkThread[]>): Promise<boolean> => {
      const remark = unsent.current.get(key) ?? remarkId(crypto.randomUUID());
      unsent.current.set(key, remark);
      const done = await tell(() => send(remark));
      if (done) unsent.current.delete(key);
      return done;
    };
    const of = (remark: RemarkId) => ({ params: { project, remark } });
    return {
      begin: (place, said, version, text, offer) => once(`${place.path}\n${text}\n${offer ?? ''}`, (remark) => call('beginThread', { params: { project, id }, body: { remark, place, said, version, text, ...offered(offer) } })),
      answer: (thread, text, offer = null) => once(`${thread}\n${text}\n${offer ?? ''}`, (remark) => call('answerRemark', { ...of(thread), body: { remark, text, ...offered(offer) } })),
      reword: (remark, text) => tell(() => call('rewordRemark', { ...of(remark), body: { text } })),
      takeBack: (remark) => tell(() => call('takeBackRemark', of(remark))),
      takeOffer: (remark, version) =>
        tell(async () => {
          const threads = await call('takeOffer', { ...of(remark), body: { version } });
          void refresh();
          return threads;
        }),
      settle: (thread, settled) => tell(() => call('settleThread', { ...of(thread), body: { settled } })),
    };
  }, [client, id, project, refresh]);
  return { threads: data, speaking };
}

function offered(offer: string | null): { readonly offer?: string } {
  return offer === null ? {} : { offer };
}
