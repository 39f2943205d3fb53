/** The way of the pen while it draws a lasso or a closing stroke for filling, in the active layer's space. */
import type { Point } from '@tallow/core/geometry';
import { create } from 'zustand';

export const useFillWay = create<{ way: readonly Point[] }>(() => ({ way: [] }));
