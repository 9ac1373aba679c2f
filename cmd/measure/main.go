// Command measure times the running binary: start to serving, memory at rest,
// and a plan request beside a bare Fiber route in the same run. It talks to
// loopback only and stops by itself.
package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/exec"
	"slices"
	"strings"
	"syscall"
	"time"

	"github.com/gofiber/fiber/v3"

	"mallow/demo"
)

const (
	starts   = 9
	requests = 2000
)

func main() {
	binary := flag.String("binary", "./bin/mallow", "the binary to measure")
	flag.Parse()
	if err := measure(*binary); err != nil {
		fmt.Fprintln(os.Stderr, "measure:", err)
		os.Exit(1)
	}
}

func measure(binary string) error {
	var times []time.Duration
	for range starts {
		took, stop, _, err := start(binary)
		if err != nil {
			return err
		}
		times = append(times, took)
		if err := stop(); err != nil {
			return err
		}
	}
	slices.Sort(times)
	fmt.Printf("start to serving (demo): median %v, slowest %v of %d\n", times[len(times)/2], times[len(times)-1], starts)

	_, stop, run, err := start(binary)
	if err != nil {
		return err
	}
	time.Sleep(time.Second)
	fmt.Printf("memory at rest: %s\n", memory(run.pid))
	docs, err := demo.Jobs()
	if err != nil {
		return err
	}
	bare, closeBare, err := bareRoute()
	if err != nil {
		return err
	}
	// Turn by turn, so that both see the same machine.
	var plan, plain []time.Duration
	size := 0
	for i := range requests {
		doc, err := dragged(docs[0], i)
		if err != nil {
			return err
		}
		p, n, err := post(run.url+"api/plan", doc)
		if err != nil {
			return err
		}
		b, _, err := post(bare, docs[0])
		if err != nil {
			return err
		}
		if i >= requests/10 { // the first ones warm up
			plan, plain, size = append(plan, p), append(plain, b), n
		}
	}
	report("plan request, 3 runs of 39 posts", plan)
	report("bare Fiber route", plain)
	fmt.Printf("plan answer: %d bytes\n", size)
	fmt.Printf("memory after %d plans: %s\n", requests, memory(run.pid))
	if err := closeBare(); err != nil {
		return err
	}
	return stop()
}

// dragged is the job with its first gate a little farther on, as while it is
// dragged: no two requests in a row are the same.
func dragged(doc []byte, i int) ([]byte, error) {
	var j job
	if err := json.Unmarshal(doc, &j.rest); err != nil {
		return nil, err
	}
	if err := json.Unmarshal(doc, &j); err != nil {
		return nil, err
	}
	for _, line := range j.Lines {
		for _, run := range line["runs"].([]any) {
			gates, _ := run.(map[string]any)["gates"].([]any)
			if len(gates) == 0 {
				continue
			}
			gate := gates[0].(map[string]any)
			gate["at"] = gate["at"].(float64) + float64(i%40)*3
			j.rest["lines"] = j.Lines
			return json.Marshal(j.rest)
		}
	}
	return nil, errors.New("the demo's first job has no gate to drag")
}

type job struct {
	Lines []map[string]any `json:"lines"`
	rest  map[string]any
}

func report(what string, times []time.Duration) {
	slices.Sort(times)
	fmt.Printf("%s: median %v, p99 %v of %d\n", what, times[len(times)/2], times[len(times)*99/100], len(times))
}

type running struct {
	url string
	pid int
}

// start runs the demo and waits until it answers.
func start(binary string) (time.Duration, func() error, running, error) {
	cmd := exec.Command(binary, "demo", "--listen", "127.0.0.1:0")
	out, err := cmd.StdoutPipe()
	if err != nil {
		return 0, nil, running{}, err
	}
	began := time.Now()
	if err := cmd.Start(); err != nil {
		return 0, nil, running{}, err
	}
	line, err := bufio.NewReader(out).ReadString('\n')
	if err != nil {
		return 0, nil, running{}, err
	}
	_, rest, _ := strings.Cut(line, "http://")
	url := "http://" + strings.Fields(rest)[0]
	res, err := http.Get(url + "healthz")
	if err != nil {
		return 0, nil, running{}, err
	}
	took := time.Since(began)
	stop := func() error {
		if err := cmd.Process.Signal(syscall.SIGTERM); err != nil {
			return err
		}
		return cmd.Wait()
	}
	return took, stop, running{url, cmd.Process.Pid}, res.Body.Close()
}

// memory is the resident size, as Linux tells it.
func memory(pid int) string {
	raw, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", pid))
	if err != nil {
		return "not known on this platform"
	}
	for line := range strings.Lines(string(raw)) {
		if name, value, ok := strings.Cut(line, ":"); ok && name == "VmRSS" {
			return strings.TrimSpace(value)
		}
	}
	return "not known"
}

func post(url string, body []byte) (time.Duration, int, error) {
	began := time.Now()
	res, err := http.Post(url, "application/json", bytes.NewReader(body))
	if err != nil {
		return 0, 0, err
	}
	n, err := io.Copy(io.Discard, res.Body)
	took := time.Since(began)
	if err != nil {
		return 0, 0, err
	}
	if res.StatusCode != http.StatusOK {
		return 0, 0, fmt.Errorf("%s answered %s", url, res.Status)
	}
	return took, int(n), res.Body.Close()
}

// bareRoute serves one route that does nothing.
func bareRoute() (string, func() error, error) {
	app := fiber.New()
	app.Post("/", func(c fiber.Ctx) error { return c.SendString("ok") })
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return "", nil, err
	}
	go func() { _ = app.Listener(l, fiber.ListenConfig{DisableStartupMessage: true}) }()
	return "http://" + l.Addr().String() + "/", app.Shutdown, nil
}
