//go:build js && wasm

// Command core is the core as a browser runs it: it answers the calls of the
// core/calls package in a worker. JavaScript gives it a call's name, its request
// as bytes of JSON, and who takes its answers; what it returns is the problem,
// or nothing.
package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"syscall/js"
	"time"

	"mallow/catalog"
	"mallow/core/calls"
	"mallow/exchange"
)

// budget is how long one call may take.
const budget = 15 * time.Second

var errTookTooLong = errors.New("it took too long")

func main() {
	cat, err := catalog.Load()
	if err != nil {
		fmt.Fprintln(os.Stderr, "core:", err) // the shipped data is tested
		os.Exit(1)
	}
	core := &calls.Core{Catalog: cat, More: exchange.Calls()}
	js.Global().Set("mallowCore", js.FuncOf(func(_ js.Value, args []js.Value) any {
		return answer(core, args[0].String(), args[1], args[2])
	}))
	js.Global().Call("mallowReady")
	select {}
}

func answer(core *calls.Core, name string, request, send js.Value) (problem any) {
	defer func() {
		if r := recover(); r != nil {
			problem = told(fmt.Errorf("%v", r))
		}
	}()
	body := make([]byte, request.Get("length").Int())
	js.CopyBytesToGo(body, request)
	late := time.Now().Add(budget)
	err := core.Answer(func() error {
		if time.Now().After(late) {
			return errTookTooLong
		}
		return nil
	}, name, body, func(out []byte) error {
		bytes := js.Global().Get("Uint8Array").New(len(out))
		js.CopyBytesToJS(bytes, out)
		send.Invoke(bytes)
		return nil
	})
	if err != nil {
		return told(err)
	}
	return nil
}

// told is an error as JSON. One that the asker cannot mend has the status 500:
// whoever asked may ask the server instead.
func told(err error) string {
	p, ok := calls.ProblemOf(err)
	if !ok {
		p = calls.Problem{Status: 500, Title: "That did not work in this browser", Detail: err.Error()}
	}
	raw, err := json.Marshal(p)
	if err != nil {
		return `{"status":500,"title":"That did not work in this browser","detail":""}`
	}
	return string(raw)
}
