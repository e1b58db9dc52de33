/** A link from a case or a condition to a defect in the tracker; the title reads as it did when it was linked. */
export interface DefectLink {
  /** The tracker's own key. */
  readonly id: string;
  readonly title: string;
  /** Address that leads to it; empty when the tracker has none. */
  readonly link: string;
}
