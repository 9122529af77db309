import type { RunAnswer } from '@glenfold/contract';
import { useChange } from '../api/changes.ts';
import { api } from '../api/client.ts';

export const useStopRun = () => useChange('run', (id: string) => api<RunAnswer>('POST', `/runs/${id}/stop`));
export const useRunAgain = () => useChange('run', (id: string) => api<RunAnswer>('POST', `/runs/${id}/again`));
export const useDismissRun = () => useChange('run', (id: string) => api<null>('DELETE', `/runs/${id}`));
