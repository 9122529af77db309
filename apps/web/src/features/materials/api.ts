import type { GenericMaterialAnswer, MaterialInput, MaterialsFileAnswer, ProductAnswer } from '@glenfold/contract';
import { queryOptions } from '@tanstack/react-query';
import { useChange, useSave } from '../../api/changes.ts';
import { api } from '../../api/client.ts';

export const materialsQueries = {
  generic: () =>
    queryOptions({
      queryKey: ['products', 'generic'],
      queryFn: () => api<GenericMaterialAnswer[]>('GET', '/products/generic'),
    }),
};

export const useSaveProduct = () => useSave<MaterialInput, ProductAnswer>('/products');
export const useTakeGeneric = () =>
  useChange('product', (names: readonly string[]) => api<MaterialsFileAnswer>('POST', '/products/generic', { names }));
export const useLoadMaterials = () =>
  useChange('product', (content: string) => api<MaterialsFileAnswer>('POST', '/products/file', { content }));
