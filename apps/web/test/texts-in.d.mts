export function textsIn(folder: string): string[];
