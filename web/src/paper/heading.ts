/** What every page says of itself. */
export interface ReportHeading {
  /** The job's site. */
  job: string
  /** Which state of the wiring: a revision and when it was kept, or that it is the wiring as it stands. */
  revision: string
  /** When the paper was made, in words. */
  date: string
  /** Who made it. */
  by: string
}

/** What a page of a wiring says of itself. */
export interface PaperHeading extends ReportHeading {
  /** What the check says of this very wiring. */
  verdict: string
  /** What that rests on. */
  basis: string
}
