package diary

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// A Place is where a yard lies, in degrees.
type Place struct {
	Lat float64 `json:"lat" minimum:"-90" maximum:"90" doc:"degrees north"`
	Lon float64 `json:"lon" minimum:"-180" maximum:"180" doc:"degrees east"`
}

// ParsePlace reads a geo: link, or two numbers as a map gives them: degrees north,
// then degrees east.
func ParsePlace(text string) (Place, error) {
	wrong := fmt.Errorf("%q is not a place: paste it as 54.48, -3.12 or as a geo: link", text)
	plain, _ := strings.CutPrefix(strings.TrimSpace(text), "geo:")
	plain, _, _ = strings.Cut(plain, "?")
	plain, _, _ = strings.Cut(plain, ";")
	parts := strings.FieldsFunc(plain, func(r rune) bool { return r == ',' || r == ' ' })
	if len(parts) != 2 && len(parts) != 3 { // the third is a height
		return Place{}, wrong
	}
	lat, latErr := strconv.ParseFloat(parts[0], 64)
	lon, lonErr := strconv.ParseFloat(parts[1], 64)
	if latErr != nil || lonErr != nil || math.IsNaN(lat) || math.IsNaN(lon) || math.Abs(lat) > 90 || math.Abs(lon) > 180 {
		return Place{}, wrong
	}
	return Place{Lat: lat, Lon: lon}, nil
}

// Driving from one place to the other in a straight line takes longer by a third, at
// so many km an hour (part 7).
const (
	earth   = 6371 // km, its radius
	winding = 1.3
	speed   = 45
)

// Minutes is how long the drive between two places takes, in whole minutes, up.
func (p Place) Minutes(o Place) int {
	rad := math.Pi / 180
	a, b := p.Lat*rad, o.Lat*rad
	h := math.Pow(math.Sin((b-a)/2), 2) + math.Cos(a)*math.Cos(b)*math.Pow(math.Sin((o.Lon-p.Lon)*rad/2), 2)
	km := 2 * earth * math.Asin(math.Min(1, math.Sqrt(h)))
	return int(math.Ceil(km*winding/speed*60 - 1e-9))
}

// Unknown is the drive that is counted between yards of which nothing is known, in
// minutes; it is said that it is counted.
const Unknown = 30

// Roads are the drives between yards, by their ids: as they were typed once, else by
// where the yards lie.
type Roads struct {
	Typed  map[[2]string]int
	Places map[string]Place
}

// Drive is how long the way from a yard to another takes, in minutes; known tells
// whether it was typed or the places are known. Typed for one way, it holds for the
// other.
func (r Roads) Drive(from, to string) (minutes int, known bool) {
	if from == to {
		return 0, true
	}
	for _, way := range [][2]string{{from, to}, {to, from}} {
		if m, ok := r.Typed[way]; ok {
			return m, true
		}
	}
	a, here := r.Places[from]
	b, there := r.Places[to]
	if here && there {
		return a.Minutes(b), true
	}
	return Unknown, false
}
