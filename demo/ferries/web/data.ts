export type Deck = "main" | "upper" | "car";
export type Status = "onTime" | "late" | "cancelled";

export interface Sailing {
  readonly id: string;
  readonly boat: string;
  readonly from: string;
  readonly to: string;
  readonly departs: string;
  readonly arrives: string;
  readonly seats: number;
  readonly deck: Deck;
  readonly status: Status;
  readonly fare: number;
}

export const islands = ["Ostrel", "Vamwick", "Little Sorrow"];

export const sailings: readonly Sailing[] = [
  {
    id: "s1",
    boat: "Heron",
    from: "Ostrel",
    to: "Vamwick",
    departs: "07:40",
    arrives: "09:05",
    seats: 12,
    deck: "main",
    status: "onTime",
    fare: 14.5,
  },
  {
    id: "s2",
    boat: "Tallow",
    from: "Ostrel",
    to: "Little Sorrow",
    departs: "10:15",
    arrives: "12:00",
    seats: 1,
    deck: "upper",
    status: "late",
    fare: 19,
  },
  {
    id: "s3",
    boat: "Ninth Wave",
    from: "Ostrel",
    to: "Vamwick",
    departs: "16:30",
    arrives: "17:45",
    seats: 0,
    deck: "car",
    status: "cancelled",
    fare: 22,
  },
];

export function formatPrice(amount: number): string {
  return amount.toFixed(2);
}
