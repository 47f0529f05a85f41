//go:build js && wasm

// Command corewasm is the rules of the arena for the browser: it puts one
// function, ivorybridge(name, json), before the page's worker. What goes in and
// comes out is package desk's.
package main

import (
	"encoding/json"
	"syscall/js"

	"ivorybridge/core/desk"
)

func main() {
	var d desk.Desk
	js.Global().Set("ivorybridge", js.FuncOf(func(_ js.Value, args []js.Value) any {
		said, err := d.Call(args[0].String(), []byte(args[1].String()))
		if err != nil {
			said, _ = json.Marshal(map[string]string{"error": err.Error()})
		}
		return string(said)
	}))
	select {}
}
