/** What a marketplace's test upload says to one file. */
export interface UploadAnswer {
  file: string;
  slot: string;
  taken: boolean;
  /** Why it was refused, or what it was taken as. */
  says: string;
}
