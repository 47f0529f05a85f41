package attention

import "slices"

// A Put is a note that somebody set aside until a day, with the reason. It holds for
// the fact as it was: another fact of the same kind shows.
type Put struct {
	Note   string `json:"note" maxLength:"60" doc:"key of the fact"`
	Basis  string `json:"basis" maxLength:"40" doc:"fingerprint of the fact as it was"`
	Until  string `json:"until" format:"date" doc:"the day from which it shows again"`
	Reason string `json:"reason" maxLength:"500" doc:"why"`
	By     string `json:"by,omitempty" maxLength:"120" doc:"who set it aside"`
}

// A Later is a note that is set aside.
type Later struct {
	Note
	Until  string `json:"until" format:"date" doc:"the day from which it shows again"`
	Reason string `json:"reason" doc:"why it was set aside"`
	By     string `json:"by,omitempty" doc:"by whom"`
}

// MostDays is how many days a note can be set aside at most.
const MostDays = 90

// Split parts the notes that show from those that are set aside on a day. Of several
// for the same note the newest counts; puts stand oldest first.
func Split(notes []Note, puts []Put, today string) ([]Note, []Later) {
	left, later := []Note{}, []Later{}
	for _, n := range notes {
		var put *Put
		for i, p := range slices.Backward(puts) {
			if p.Note == n.Say.Key {
				put = &puts[i]
				break
			}
		}
		if put == nil || put.Until <= today || put.Basis != n.Basis() {
			left = append(left, n)
			continue
		}
		later = append(later, Later{Note: n, Until: put.Until, Reason: put.Reason, By: put.By})
	}
	return left, later
}
