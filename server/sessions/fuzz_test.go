package sessions

import (
	"encoding/json"
	"testing"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/server/api"
)

// Whatever is sent as an entry is read, or refused with a sentence.
func FuzzSent(f *testing.F) {
	schemas := api.Schemas()
	c, err := yaml.Shipped()
	if err != nil {
		f.Fatal(err)
	}
	f.Add([]byte(`{"id":"0197c0de-0000-7000-8000-000000000001","kind":"rep","at":5,"rep":{"step":"lead.halt","answer":"try"}}`))
	f.Add([]byte(`{"kind":"mark","at":-1,"mark":{"arousal":9}}`))
	f.Fuzz(func(t *testing.T, text []byte) {
		var sent sentEntry
		if json.Unmarshal(text, &sent) != nil {
			return
		}
		e, err := readEntry(schemas, sent)
		if err != nil && err.Error() == "" {
			t.Errorf("refused without a sentence: %q", text)
		}
		if err == nil && e.Check(c) == nil && e.ID == "" {
			t.Errorf("kept without an id: %q", text)
		}
	})
}
