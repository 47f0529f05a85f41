package phrase

import (
	"math"
	"strconv"
)

const feetOfAMetre = 1 / 0.3048

// length says so many metres in the book's units. In feet it is as one says it: halves
// under ten, whole ones under fifty, from there on each fifth. What is no number stays
// as it is.
func (b Book) length(metres string) string {
	m, err := strconv.ParseFloat(metres, 64)
	switch {
	case err != nil:
		return metres
	case b.words.Units != "feet":
		return metres + " m"
	}
	step := 0.5
	switch feet := m * feetOfAMetre; {
	case feet >= 50:
		step = 5
	case feet >= 10:
		step = 1
	}
	return strconv.FormatFloat(math.Round(m*feetOfAMetre/step)*step, 'f', -1, 64) + " ft"
}
