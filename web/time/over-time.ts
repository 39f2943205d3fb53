/** Whose opacity and place over time are shown. */
import { create } from 'zustand';

export const useOverTime = create<{ readonly of: 'layer' | 'folder' }>(() => ({ of: 'layer' }));
export const setOverTime = useOverTime.setState;
