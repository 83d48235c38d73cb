import { create } from 'zustand';

/** Whether the stage shows the picture alone, its bar, strips and desk folded away. */
export const useAlone = create(() => ({ alone: false }));

export const toggleAlone = () => useAlone.setState(({ alone }) => ({ alone: !alone }));
