// Command trial tries what must never be lost: it kills the program at random moments of everything that it writes,
// sends it hostile requests, and leads a long class before many screens. Each ends with an error where something was
// lost.
package main

import (
	"flag"
	"fmt"
	"log"
	"math/rand/v2"
	"os"
	"time"
)

func main() {
	kills := flag.Int("kills", 1000, "how often the program is killed")
	requests := flag.Int("requests", 100_000, "how many hostile requests are sent")
	screens := flag.Int("screens", 2000, "how many room screens look at the long class")
	length := flag.Duration("class", 3*time.Hour, "how long the class is, at a hundred times the speed")
	answer := flag.Duration("answer", 5*time.Second, "how long an answer to a hostile request may take")
	seed := flag.Uint64("seed", uint64(time.Now().UnixNano()), "of what is random, to try the same again")
	flag.Parse()
	fmt.Println("seed", *seed)
	random := rand.New(rand.NewPCG(*seed, 1))
	for _, trial := range []struct {
		name string
		run  func(folder string) (string, error)
	}{
		{"kills", func(folder string) (string, error) { return killing(folder, *kills, random) }},
		{"hostile requests", func(folder string) (string, error) { return hostile(folder, *requests, *answer, random) }},
		{"a long class", func(folder string) (string, error) { return long(folder, *screens, *length) }},
	} {
		folder, err := os.MkdirTemp("", "trial")
		if err != nil {
			log.Fatal(err)
		}
		began := time.Now()
		says, err := trial.run(folder)
		if err != nil {
			log.Fatalf("%s: %v (kept: %s)", trial.name, err, folder)
		}
		os.RemoveAll(folder)
		fmt.Printf("%s: %s, in %.0f s\n", trial.name, says, time.Since(began).Seconds())
	}
}
