import type { MachineAnswer, MachineInput } from '@glenfold/contract';
import { queryOptions } from '@tanstack/react-query';
import { useSave } from './changes.ts';
import { api } from './client.ts';

export const machinesQuery = () =>
  queryOptions({ queryKey: ['machines'], queryFn: () => api<MachineAnswer[]>('GET', '/machines') });

export const useSaveMachine = () => useSave<MachineInput, MachineAnswer>('/machines');
