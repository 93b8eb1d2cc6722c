package main
import ( "fmt"; "log" )
const title = "Departures"
func main() { fmt.Printf("There are %d boats\n", n); log.Println("debug"); http.Error(w, `Boat "x" is late`, 404); m := map[string]string{"a": "Late"}; _ = m["a"] }
