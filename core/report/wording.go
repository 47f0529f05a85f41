package report

// An Edit is the trainer's wording of a sentence, with the numbers it was
// written on.
type Edit struct {
	Text  string `json:"text" maxLength:"1000"`
	Basis string `json:"basis" maxLength:"40"`
	Left  bool   `json:"left_out,omitempty"`

	Reason string `json:"reason,omitempty" maxLength:"500" doc:"why it is left out; of an incident it is needed"`
}

// fixed sections and sentences are said as they are: safety is not worded away.
var fixed = []string{"first", "care", "call", "short.may", "short.must_not", "short.ring"}

// With puts the trainer's own wording over the product's; safety sentences
// can't be left out or reworded.
func (d Document) With(edits map[string]Edit) Document {
	for i := range d.Sections {
		for j := range d.Sections[i].Sentences {
			s := &d.Sections[i].Sentences[j]
			e, ok := edits[s.ID]
			if !ok || s.Fixed {
				continue
			}
			s.Edited, s.Left, s.Reason = e.Text, e.Left, e.Reason
			s.Changed = e.Basis != s.Basis
		}
	}
	return d
}
