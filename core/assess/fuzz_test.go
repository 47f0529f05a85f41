package assess

import (
	"encoding/json"
	"testing"

	"ivorybridge/core/catalog/yaml"
)

// Whatever is sent as a mark of an assessment: it is refused with a sentence,
// or the document that it makes can be judged.
func FuzzMark(f *testing.F) {
	c, err := yaml.Shipped()
	if err != nil {
		f.Fatal(err)
	}
	for _, text := range []string{
		`{"id":"1","path":"problems/loading/story/began","value":"last spring"}`,
		`{"id":"1","path":"problems/loading/baseline","value":{"done":true,"arousal":3,"ways_out":["reared"]}}`,
		`{"id":"1","path":"body/back","value":{"state":"suspect"}}`,
		`{"id":"1","path":"problems","value":null}`,
	} {
		f.Add([]byte(text))
	}
	f.Fuzz(func(t *testing.T, text []byte) {
		var m Mark
		if json.Unmarshal(text, &m) != nil {
			return
		}
		doc, faults := m.On(Assessment{}, c, "2026-06-01")
		for _, fault := range faults {
			if fault.Say == "" {
				t.Errorf("refused without a sentence: %s", text)
			}
		}
		if len(faults) > 0 {
			return
		}
		if _, err := Judge(c, Case{Today: "2026-06-01", Assessment: doc}); err != nil {
			t.Errorf("%s can't be judged: %v", text, err)
		}
	})
}
