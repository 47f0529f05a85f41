package methods

import (
	"encoding/json"
	"testing"

	"ivorybridge/core/catalog"
	"ivorybridge/core/catalog/yaml"
)

// Whatever is sent as an own ladder: each fault has its place and a sentence,
// or the horse's catalogue can be fitted with it.
func FuzzLadder(f *testing.F) {
	c, err := yaml.Shipped()
	if err != nil {
		f.Fatal(err)
	}
	for _, text := range []string{
		`{"ladder":"head","name":"Down first"}`,
		`{"ladder":"head","name":"Ours","steps":[{"key":"head.down","name":"down","ask":"ask it down","plain":"it lowers","measures":["answer"],"run":3,"level":3}]}`,
		`{"ladder":"lead","name":"Ours","steps":[{"key":"lead.gate","name":"gate","ask":"a","plain":"b","measures":["hold"],"values":[5,10],"unit":"s","run":0,"level":11,"needs":["lead.moon"]}]}`,
	} {
		f.Add([]byte(text))
	}
	f.Fuzz(func(t *testing.T, sent []byte) {
		var text LadderText
		if json.Unmarshal(sent, &text) != nil {
			return
		}
		shipped, ok := c.Ladder(text.Ladder)
		if !ok {
			shipped = c.Ladders[0]
		}
		own, wrong := checked(c, shipped, shipped, text, nil)
		for _, w := range wrong {
			if w.Field == "" || w.Say == "" {
				t.Errorf("refused without a place or a sentence: %s", sent)
			}
		}
		if len(wrong) > 0 {
			return
		}
		own.Own = &catalog.Origin{ID: "1", Version: 1, From: c.Version}
		if _, err := c.Fit(catalog.Fitting{Own: []catalog.Ladder{own}}); err != nil {
			t.Errorf("kept, and can't be used: %v: %s", err, sent)
		}
	})
}

// Whatever is in a file: it is refused with a sentence for each fault, or it can be used.
func FuzzLadderFile(f *testing.F) {
	c, err := yaml.Shipped()
	if err != nil {
		f.Fatal(err)
	}
	for _, l := range c.Ladders[:3] {
		text, err := yaml.Write(l)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(text)
	}
	f.Add([]byte("ladder: lead\nname: x\nsteps: [{step: lead.x, pass: usual}, *a]"))
	f.Fuzz(func(t *testing.T, sent []byte) {
		w, faults := yaml.ReadLadder(sent, c.Rules)
		for _, fault := range faults {
			if fault.Say == "" {
				t.Errorf("refused without a sentence: %q", sent)
			}
		}
		shipped, ok := c.Ladder(w.Key)
		if len(faults) > 0 || !ok {
			return
		}
		own, wrong := checkedFile(c, shipped, shipped, w, textOf(w.Ladder, LadderIn{}), nil)
		if len(wrong) > 0 {
			return
		}
		own.Own = &catalog.Origin{ID: "1", Version: 1, From: c.Version}
		if _, err := c.Fit(catalog.Fitting{Own: []catalog.Ladder{own}}); err != nil {
			t.Errorf("kept, and can't be used: %v: %q", err, sent)
		}
	})
}
