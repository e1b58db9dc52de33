import { momentKey } from '@caderno/contract';
import { useCallback } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { call, tellFailure } from '../api/index.ts';
import { notify } from '../look/index.ts';

/** Leads to the page one is on in what is agreed by now; null on a moment, which is no project of now. */
export function useSeeAgreed(project: string): (() => void) | null {
  const navigate = useNavigate();
  const { pathname, search } = useLocation();
  const here = pathname.split('/').slice(2).join('/') + search;
  const see = useCallback(() => {
    void call('readProject', { params: { project } }).then(({ figures: { revision } }) => {
      // Before anything was done there is no moment to look at.
      if (revision === 0) notify((notices) => notices('Nothing is agreed yet.'));
      else void navigate(`/${momentKey(project, { kind: 'revision', revision, agreedOnly: true })}/${here}`);
    }, tellFailure);
  }, [project, here, navigate]);
  return project.includes('@') ? null : see;
}
