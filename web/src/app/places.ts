export interface Place {
  to: string;
  name: string;
  outdoors: boolean;
  /** What the key `n` begins here. */
  begin?: string;
}

/** The places, in the order of work. */
export const places: Place[] = [
  { to: "today", name: "Today", outdoors: true },
  { to: "ground", name: "Ground", outdoors: true, begin: "ground/new" },
  { to: "shelf", name: "Shelf", outdoors: false, begin: "shelf/new" },
  { to: "kit", name: "Kit", outdoors: false, begin: "kit/new" },
  { to: "reckon", name: "Reckon", outdoors: true },
  { to: "passes", name: "Passes", outdoors: false },
  { to: "sky", name: "Sky", outdoors: false },
  { to: "season", name: "Season", outdoors: false },
  { to: "round", name: "Round", outdoors: true },
  { to: "book", name: "Book", outdoors: true },
];
