/** A chapter of the manual as the build hands it on. */
export interface Chapter {
  title: string;
  sections: { id: string; title: string; html: string; text: string }[];
}
