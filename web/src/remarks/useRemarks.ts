import type { ArtefactId } from '@caderno/core/artefacts';
import { remarkId, type RemarkId, type RemarkPlace, type RemarkThread } from '@caderno/core/remarks';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo, useRef } from 'react';
import { call, tellFailure } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';

/** What can be said. Each answers whether it was. */
export interface Speaking {
  readonly begin: (place: RemarkPlace, said: string, version: number, text: string) => Promise<boolean>;
  readonly answer: (thread: RemarkId, text: string) => Promise<boolean>;
  readonly reword: (remark: RemarkId, text: string) => Promise<boolean>;
  readonly takeBack: (remark: RemarkId) => Promise<boolean>;
  readonly settle: (thread: RemarkId, settled: boolean) => Promise<boolean>;
}

/** What is said of an artefact; everybody's comes in as it is said. */
export function useRemarks(id: ArtefactId): { readonly threads: readonly RemarkThread[] | undefined; readonly speaking: Speaking } {
  const { project } = useFrame();
  const client = useQueryClient();
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
      begin: (place, said, version, text) => once(`${place.path}\n${text}`, (remark) => call('beginThread', { params: { project, id }, body: { remark, place, said, version, text } })),
      answer: (thread, text) => once(`${thread}\n${text}`, (remark) => call('answerRemark', { ...of(thread), body: { remark, text } })),
      reword: (remark, text) => tell(() => call('rewordRemark', { ...of(remark), body: { text } })),
      takeBack: (remark) => tell(() => call('takeBackRemark', of(remark))),
      settle: (thread, settled) => tell(() => call('settleThread', { ...of(thread), body: { settled } })),
    };
  }, [client, id, project]);
  return { threads: data, speaking };
}
