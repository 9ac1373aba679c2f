// Command torture finds out what brings Mallow down.
package main

import (
	"flag"
	"fmt"
	"os"
	"time"
)

func main() {
	length := flag.Duration("for", 2*time.Minute, "how long")
	seed := flag.Uint64("seed", uint64(time.Now().UnixNano()), "seed")
	keep := flag.String("keep", "", "file")
	flag.Parse()
	w, err := searchWorst(os.Stdout, *length, *seed)
	if err != nil {
		fmt.Println(err)
		os.WriteFile("/tmp/panic.json", w.doc, 0o600)
		os.Exit(1)
	}
	if *keep != "" {
		os.WriteFile(*keep, w.doc, 0o600)
	}
}
