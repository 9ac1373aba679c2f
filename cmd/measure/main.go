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

	"mallow/catalog"
	"mallow/core/document"
	fact "mallow/core/job"
	"mallow/core/length"
	"mallow/demo"
	"mallow/server"
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
	if err := saves(run.url); err != nil {
		return err
	}
	return stop()
}

const (
	factsHeld = 20_000
	saved     = 60
	pushing   = 5
)

// saves times the opening of a job of 2,000 posts with 20,000 facts, and the
// saving of one more.
func saves(url string) error {
	cat, err := catalog.Load()
	if err != nil {
		return err
	}
	j := document.New("Facts", length.Imperial, cat)
	long := 1999 * 96 * length.Inch
	j.Lines[0].Runs[0].Length = &long
	for i := range factsHeld {
		depth := float64(900 + i%7)
		f := fact.Fact{ID: fmt.Sprint("f", i+1), On: fmt.Sprintf("post/R1.%d", 1+i%2000), When: "2026-11-28T10:00:00Z", What: fact.MarkDug}
		if i%2 == 0 {
			f.What, f.Value, f.Unit = fact.DepthDug, &depth, "in"
		}
		j.Observed = append(j.Observed, f)
	}
	raw, err := json.Marshal(j)
	if err != nil {
		return err
	}
	var made server.JobState
	if _, err := ask("POST", url+"api/jobs", server.CreateRequest{Doc: raw}, http.StatusCreated, &made); err != nil {
		return err
	}
	for range pushing { // the server keeps a few jobs open: the first is not among them any more
		if _, err := ask("POST", url+"api/jobs", server.CreateRequest{Doc: raw}, http.StatusCreated, nil); err != nil {
			return err
		}
	}
	time.Sleep(2 * time.Second) // for the list, which describes them beside it
	opened, err := ask("GET", url+"api/jobs/"+made.ID, nil, http.StatusOK, &made)
	if err != nil {
		return err
	}
	fmt.Printf("opening a job of 2,000 posts and %d facts, cold: %v\n", factsHeld, opened)
	var times []time.Duration
	for i := range saved {
		id := fmt.Sprint("g", i+1)
		req := server.EditRequest{Base: i + 1, What: "Dug", Edits: []fact.Edit{fact.Set("/observed/"+id, fact.Fact{ID: id, On: fmt.Sprintf("post/R1.%d", 2+i), What: fact.MarkDug})}}
		took, err := ask("PATCH", url+"api/jobs/"+made.ID, req, http.StatusOK, nil)
		if err != nil {
			return err
		}
		if i >= saved/10 {
			times = append(times, took)
		}
		time.Sleep(200 * time.Millisecond) // a crew is slower still
	}
	report("saving one fact more of it", times)
	return nil
}

func ask(method, url string, body any, status int, into any) (time.Duration, error) {
	raw, err := json.Marshal(body)
	if err != nil {
		return 0, err
	}
	req, err := http.NewRequest(method, url, bytes.NewReader(raw))
	if err != nil {
		return 0, err
	}
	req.Header.Set("Content-Type", "application/json")
	began := time.Now()
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		return 0, err
	}
	answer, err := io.ReadAll(res.Body)
	took := time.Since(began)
	if err != nil {
		return 0, err
	}
	if res.StatusCode != status {
		return 0, fmt.Errorf("%s answered %s: %.300s", url, res.Status, answer)
	}
	if into != nil {
		err = json.Unmarshal(answer, into)
	}
	return took, errors.Join(err, res.Body.Close())
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
