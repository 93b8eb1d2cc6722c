const labels = { open: "Open now", shut: "Closed" };
export function Board({ n, boat }: { n: number; boat: string }) {
  const [error, setError] = useState("");
  // fond: note shown above the list
  return (
    <main title={`Boat ${boat}`} className="wide red">
      <h1>The {boat} leaves <b>soon</b></h1>
      {n === 1 ? "1 seat" : `${n} seats`} {error && <p>{error ? "Try again" : "All good"}</p>}
      <input placeholder="Your name" onChange={(e) => e.target.value === "admin" && setError("Not allowed")} />
    </main>
  );
}
